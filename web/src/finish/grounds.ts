import type { GroundTold } from '@/api/client'
import { type Sizes, type UseKind, usualOf } from './uses'

export type GroundKind = GroundTold['kind']

/** What a place can be, with the use that is usual there; a kind is a row. */
const USUAL: Record<GroundKind, UseKind> = {
  bed: 'topdress',
  field: 'field',
  pits: 'pits',
  trees: 'trees',
  nursery: 'mix',
  lawn: 'topdress',
}
export const GROUND_KINDS = Object.keys(USUAL) as GroundKind[]
/** Whether a place is told by number and not by its ground. */
export const isCounted = (kind: GroundKind) => kind === 'pits' || kind === 'trees'

/** The use that is usual at a place, as large as the place is; a lawn is dressed thinner. */
export function useAt(ground: Pick<GroundTold, 'kind' | 'area_m2' | 'count'>): {
  kind: UseKind
  sizes: Sizes
} {
  const kind = USUAL[ground.kind]
  const sizes = usualOf(kind)
  if ('area_m2' in sizes && ground.area_m2) sizes.area_m2 = ground.area_m2
  if ('count' in sizes && ground.count) sizes.count = ground.count
  if (ground.kind === 'lawn') sizes.depth_cm = 0.5
  return { kind, sizes }
}
