import { type QueryClient, useQueryClient } from '@tanstack/vue-query'

/**
 * What is asked of the server, by name. A change says what it is about; everything
 * that leans on that is asked anew, and nobody has to know who that is.
 */
const LEANS = {
  about: [],
  me: ['person'],
  door: ['person'],
  people: ['person', 'site'],
  network: [],
  comings: ['person'],
  limits: [],
  sites: ['site'],
  measures: ['site', 'measure'],
  materials: ['material'],
  names: ['material'],
  methods: ['method'],
  starters: [],
  lots: ['site', 'measure', 'material', 'lot', 'batch', 'heap'],
  history: ['lot', 'batch', 'heap'],
  tests: ['lot'],
  'sorted-out': ['site', 'sorted-out'],
  batches: ['site', 'batch', 'heap'],
  heaps: ['site', 'batch', 'heap'],
  heap: ['lot', 'batch', 'material', 'method'],
  tended: ['heap', 'lot', 'batch', 'material', 'method', 'site', 'person'],
  judgement: ['heap', 'lot', 'batch', 'material', 'method', 'site', 'follows'],
  today: ['heap', 'lot', 'batch', 'material', 'method', 'site', 'follows'],
  follows: ['site', 'follows'],
  calendar: ['site', 'calendar'],
  apply: [],
  compost: ['site', 'heap', 'compost', 'ground', 'measure', 'follows', 'material', 'method'],
  grounds: ['site', 'heap', 'compost', 'ground', 'follows', 'material', 'method'],
  outlook: ['heap', 'compost', 'site'],
  chain: ['site', 'heap', 'lot', 'compost', 'ground', 'follows'],
  compare: ['heap', 'compost', 'lot', 'material', 'method', 'site'],
  trace: ['heap', 'material', 'method', 'site'],
  strips: ['heap', 'site'],
  probes: ['heap', 'site'],
  bench: ['material', 'method', 'measure', 'lot'],
  choices: ['material', 'measure', 'lot'],
  worth: ['material', 'measure', 'lot'],
  thumb: ['material', 'measure'],
  correct: ['material', 'measure', 'method'],
  place: ['method'],
  suit: ['site', 'material', 'method', 'measure'],
  prepare: ['material', 'method', 'measure', 'lot'],
  working: ['material', 'method'],
  confidence: ['material', 'method'],
  check: [],
  reckon: ['lot', 'material'],
  volume: ['measure'],
  weight: ['material', 'measure'],
} as const satisfies Record<string, readonly string[]>

export type Asked = keyof typeof LEANS
export type Subject = (typeof LEANS)[Asked][number]

/** The key of a query: its name, and what tells it from others of that name. */
export const key = <T extends unknown[]>(name: Asked, ...of: T) => [name, ...of] as const

/** The queries that lean on something. */
export const leaning = (...subjects: Subject[]): Asked[] =>
  (Object.keys(LEANS) as Asked[]).filter((name) =>
    (LEANS[name] as readonly Subject[]).some((one) => subjects.includes(one)),
  )

/** Asks everything anew that leans on what was changed. */
export const changed = (queries: QueryClient, ...subjects: Subject[]) =>
  Promise.all(leaning(...subjects).map((name) => queries.invalidateQueries({ queryKey: [name] })))

/** The same, for a composable that changes things of its own. */
export function useChanged(...subjects: Subject[]) {
  const queries = useQueryClient()
  return () => changed(queries, ...subjects)
}
