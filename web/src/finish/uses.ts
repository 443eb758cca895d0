import type { ApplyUse } from '@/api/client'
import type { Quantity } from '@/words/units'

export type UseKind = ApplyUse['kind']

export interface UseField {
  field: string
  /** What it usually is. */
  usual: number
  min: number
  max: number
  quantity?: Quantity
}

/** What is asked of each use, with what is usual: a use is a row. */
export const USES: Record<UseKind, readonly UseField[]> = {
  topdress: [
    { field: 'area_m2', usual: 20, min: 0.1, max: 1e6 },
    { field: 'depth_cm', usual: 2, min: 0.1, max: 30, quantity: 'length' },
  ],
  field: [
    { field: 'area_m2', usual: 500, min: 1, max: 1e7 },
    { field: 't_per_ha', usual: 10, min: 0.1, max: 200 },
  ],
  pits: [
    { field: 'count', usual: 20, min: 1, max: 1e5 },
    { field: 'litres_each', usual: 10, min: 0.1, max: 1000, quantity: 'volume' },
  ],
  trees: [
    { field: 'count', usual: 10, min: 1, max: 1e5 },
    { field: 'litres_each', usual: 20, min: 0.1, max: 1000, quantity: 'volume' },
    { field: 'times_per_year', usual: 2, min: 1, max: 12 },
  ],
  mix: [
    { field: 'volume_l', usual: 100, min: 0.1, max: 1e6, quantity: 'volume' },
    { field: 'compost_parts', usual: 1, min: 0.1, max: 100 },
    { field: 'other_parts', usual: 3, min: 0, max: 100 },
  ],
  extract: [
    { field: 'volume_l', usual: 100, min: 1, max: 1e5, quantity: 'volume' },
    { field: 'kg_per_20_l', usual: 1, min: 0.1, max: 10, quantity: 'mass' },
  ],
}
export const KINDS = Object.keys(USES) as UseKind[]

/** What people ask for, in the order in which it stands: a lawn is dressed like a bed, and thinner. */
export type AskedName = UseKind | 'lawn'
export const ASKED: readonly { name: AskedName; kind: UseKind; sizes?: Sizes }[] = [
  { name: 'topdress', kind: 'topdress' },
  { name: 'field', kind: 'field' },
  { name: 'pits', kind: 'pits' },
  { name: 'trees', kind: 'trees' },
  { name: 'mix', kind: 'mix' },
  { name: 'lawn', kind: 'topdress', sizes: { area_m2: 100, depth_cm: 0.5 } },
  { name: 'extract', kind: 'extract' },
]
export const askedOf = (name: AskedName) => ASKED.find((one) => one.name === name)!
/** What is usual of each, to begin with. */
export const usualSizes = () =>
  Object.fromEntries(ASKED.map(({ name, kind, sizes }) => [name, { ...(sizes ?? usualOf(kind)) }])) as Record<
    AskedName,
    Sizes
  >
/** What a tree gets at a time by how long it has stood, litres: twice a year, in a ring. */
export const TREE_AGES = [
  { age: 'planted', litres: 5 },
  { age: 'young', litres: 12 },
  { age: 'bearing', litres: 25 },
  { age: 'old', litres: 50 },
] as const
/** A ring around a tree: a hand's breadth off the trunk, so deep, and so far out for so much [cm]. */
export const RING_FROM_CM = 20
export const RING_DEEP_CM = 2
export const ringOut = (litres: number): number =>
  Math.sqrt((litres * 1000) / RING_DEEP_CM / Math.PI + RING_FROM_CM ** 2)

export type Sizes = Record<string, number | null>
export const usualOf = (kind: UseKind): Sizes =>
  Object.fromEntries(USES[kind].map(({ field, usual }) => [field, usual]))

/** A use as it is asked; none while something of it is not said. */
export function useOf(kind: UseKind, sizes: Sizes): ApplyUse | null {
  const fields = USES[kind].map(({ field }) => [field, sizes[field] ?? null] as const)
  if (fields.some(([, value]) => value === null)) return null
  return { kind, ...Object.fromEntries(fields) } as ApplyUse
}
