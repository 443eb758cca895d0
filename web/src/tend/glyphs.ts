import type { EntryKind } from '@/api/client'

/** Signs of what is done to a heap, in a square of 18, drawn in the line of the hatches. */
const GLYPHS: Partial<Record<EntryKind, string>> = {
  turn: 'M3 11a6 6 0 0 1 11-4M14 2v5h-5M15 8a6 6 0 0 1-11 4M4 16v-4h4',
  water: 'M9 2q6 7 6 10a6 5 0 0 1-12 0q0-3 6-10z',
  rain: 'M4 3L2 8M9 3L7 8M14 3l-2 5M6 10l-2 5M11 10l-2 5M16 10l-2 5',
  add: 'M9 3v12M3 9h12',
  feed: 'M9 3v12M3 9h12M3 16h12',
  cover: 'M2 9L9 3l7 6M4 15h10',
  uncover: 'M2 9L9 3l7 6M3 15L15 7',
  aerate: 'M5 2v10M9 2v10M13 2v10M3 15h12',
  stick: 'M14 2L6 12M3 15h8',
  temperature: 'M8 3a1.6 1.6 0 0 1 3 0v7a3.4 3.4 0 1 1-3 0z',
  squeeze: 'M4 8q2-4 5-1q3-3 5 1v3q0 4-5 4t-5-4zM9 16v1',
  smell: 'M4 13q3-3 0-6q-2-3 1-5M9 13q3-3 0-6q-2-3 1-5M14 13q3-3 0-6',
  height: 'M9 2v14M6 4l3-2l3 2M6 14l3 2l3-2M3 16h12',
  seen: 'M2 9q7-8 14 0q-7 8-14 0zM9 7a2 2 0 1 1 0 4a2 2 0 1 1 0-4',
  worms: 'M3 12q3-8 6-2t6-3',
  liquid: 'M3 6h12M9 6v5M7 14q2-3 4 0a2 2 0 0 1-4 0z',
  move: 'M2 9h13M11 5l4 4l-4 4',
  note: 'M4 2h10v14H4zM6 6h6M6 9h6M6 12h3',
  photo: 'M2 5h4l1-2h4l1 2h4v10H2zM9 7a3 3 0 1 1 0 6a3 3 0 1 1 0-6',
  readings: 'M2 14l4-8l4 5l3-7l3 6',
  'closed-bag': 'M5 3h8l1 12H4zM5 6h8M7 3v3M11 3v3',
  germination: 'M9 16V8M9 8q-6 0-6-5q6 0 6 5zM9 10q6 0 6-5q-6 0-6 5z',
  'bean-test': 'M5 4q8-1 8 6q0 5-4 4q-2-1-1-4q0-2-3-2q-3-1 0-4z',
  laid: 'M2 15L5 6h8l3 9zM4 11h10',
  begun: 'M2 15L5 6h8l3 9z',
  ended: 'M2 15L5 6h8l3 9zM5 3h8',
}

export const glyphOf = (kind: EntryKind): string => GLYPHS[kind] ?? 'M6 9a3 3 0 1 1 6 0a3 3 0 1 1-6 0'
