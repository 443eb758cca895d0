/** What a mix takes, held against what there is. */
import type { BatchPart, Lot } from '@/api/client'

type Part = Pick<BatchPart, 'lot_id' | 'amount' | 'unit' | 'measure_id'>

/** What is wrong with a part's lot: it holds too little, or it is gone; none where all is there or nobody counts it. */
export type Short = { is: 'less'; lot: Lot; missing: number } | { is: 'gone'; missing: number } | null

/** Whether a part can be taken from its lot as it is now; `kg` is what the part weighs, where it is said otherwise than the lot. */
export function shortOf(part: Part, lots: Lot[] | undefined, kg = 0): Short {
  if (!part.lot_id || !lots || part.amount <= 0) return null
  const lot = lots.find((one) => one.id === part.lot_id)
  if (!lot) return { is: 'gone', missing: part.amount }
  const isSame = lot.unit === part.unit && lot.measure_id === part.measure_id
  const missing = isSame ? part.amount - lot.amount : kg > lot.kg ? (part.amount * (kg - lot.kg)) / kg : 0
  return missing > 1e-6 ? { is: 'less', lot, missing } : null
}
