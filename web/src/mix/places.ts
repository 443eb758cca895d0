/** The places of the program, in the order of the work, with their signs. */
export interface Place {
  to: string
  name: string
  path: string
  /** Only where there is room for all; on a phone it stands under More. */
  isWide?: boolean
  /** Only on a phone. */
  isNarrow?: boolean
  /** Other pages that belong to it. */
  also?: string[]
}

export const PLACES: Place[] = [
  { to: '/today', name: 'today', path: 'M4 6h18v16H4zM4 11h18M9 3v5M17 3v5M9 16l3 3l6-6' },
  { to: '/stock', name: 'stock', path: 'M4 9h18v12H4zM7 9V5h12v4M4 14h18', also: ['/signs'] },
  { to: '/measures', name: 'measures', path: 'M6 7h14l-2 15H8zM6 7q7-6 14 0', isWide: true },
  {
    to: '/bench',
    name: 'bench',
    path: 'M5 5h17v17H5zM12 12a3 3 0 1 0 6 0a3 3 0 1 0-6 0',
    also: ['/choices'],
  },
  { to: '/rules', name: 'rules', path: 'M5 6v14M5 8h8M5 13h12M5 18h16', isWide: true },
  {
    to: '/methods',
    name: 'methods',
    path: 'M3 22L8 11h10l5 11zM13 11V4M13 4l-3 3M13 4l3 3',
    isWide: true,
  },
  { to: '/place', name: 'place', path: 'M4 6h18v15H4zM4 16h18M13 6v10', isWide: true },
  {
    to: '/layers',
    name: 'layers',
    path: 'M2 22L8 7h10l6 15zM6.5 12h13M4.6 17h17',
    also: ['/prepare', '/card'],
    isWide: true,
  },
  {
    to: '/heaps',
    name: 'heaps',
    path: 'M3 21q3-10 7-4t5-6t8-5M3 21h20M3 4v17',
    also: ['/build', '/compare'],
  },
  {
    to: '/compost',
    name: 'compost',
    path: 'M3 20q10-13 20 0zM8 20v-3M13 20v-6M18 20v-3M13 9V3M13 5l-3-2M13 6l3-2',
    also: ['/use', '/grounds', '/chain'],
    isWide: true,
  },
  {
    to: '/batches',
    name: 'batches',
    path: 'M6 4h14v18H6zM10 4v18M13 9h4M13 13h4',
    also: ['/plots'],
    isWide: true,
  },
  {
    to: '/reference',
    name: 'reference',
    path: 'M13 6q-4-3-10-2v16q6-1 10 2q4-3 10-2V4q-6-1-10 2zM13 6v16',
    isWide: true,
  },
  { to: '/words', name: 'words', path: 'M4 5h18v13H13l-5 4v-4H4zM8 10h10M8 14h7', isWide: true },
  {
    to: '/people',
    name: 'people',
    path: 'M9 8a3.5 3.5 0 1 0 7 0a3.5 3.5 0 1 0-7 0M4 22q0-9 8.5-9t8.5 9z',
    isWide: true,
    also: ['/comings'],
  },
  {
    to: '/settings',
    name: 'settings',
    path: 'M4 8h18M4 18h18M9 5v6M17 15v6',
    isWide: true,
    also: ['/follows'],
  },
  {
    to: '/more',
    name: 'more',
    path: 'M5 8h16M5 13h16M5 18h16',
    isNarrow: true,
    also: [
      '/compost',
      '/use',
      '/grounds',
      '/chain',
      '/batches',
      '/plots',
      '/layers',
      '/prepare',
      '/card',
      '/reference',
      '/settings',
      '/follows',
      '/measures',
      '/rules',
      '/methods',
      '/place',
      '/words',
      '/people',
      '/comings',
    ],
  },
]
