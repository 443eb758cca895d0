import type { GroundTold } from '@/api/client'
import { type AskedName, type Sizes, usualSizes } from './uses'

export type GroundKind = GroundTold['kind']

/** What a place can be, with the use that is usual there; a kind is a row. */
const USUAL: Record<GroundKind, AskedName> = {
  bed: 'topdress',
  field: 'field',
  pits: 'pits',
  trees: 'trees',
  nursery: 'mix',
  lawn: 'lawn',
}
export const GROUND_KINDS = Object.keys(USUAL) as GroundKind[]
/** Whether a place is told by number and not by its ground. */
export const isCounted = (kind: GroundKind) => kind === 'pits' || kind === 'trees'

/** The use that is usual at a place, as large as the place is. */
export function useAt(ground: Pick<GroundTold, 'kind' | 'area_m2' | 'count'>): {
  name: AskedName
  sizes: Sizes
} {
  const name = USUAL[ground.kind]
  const sizes = usualSizes()[name]
  if ('area_m2' in sizes && ground.area_m2) sizes.area_m2 = ground.area_m2
  if ('count' in sizes && ground.count) sizes.count = ground.count
  return { name, sizes }
}
