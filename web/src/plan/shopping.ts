/** What several batches take together, held against what there is: one list to fetch by. */
import type { BatchListed, Lot } from '@/api/client'

/** One material in one unit, over all batches. */
export interface Wanted {
  key: string
  material: string
  label: string | null
  unit: Lot['unit']
  measure_id: string | null
  /** What all of them take. */
  amount: number
  /** What of it the stock does not hold. */
  missing: number
}

/** The list, in the order in which things are first met; what was taken from stock already is left out. */
export function shoppingOf(batches: Pick<BatchListed, 'items' | 'taken_at'>[], lots: Lot[]): Wanted[] {
  const found = new Map<string, Wanted>()
  for (const { items, taken_at } of batches) {
    if (taken_at) continue
    for (const { material, label = null, unit, measure_id = null, amount, lot_id } of items) {
      const key = [lot_id ?? material, unit, measure_id].join(' ')
      const one = found.get(key) ?? { key, material, label, unit, measure_id, amount: 0, missing: 0 }
      one.amount += amount
      const lot = lots.find((held) => held.id === lot_id)
      const isSame = lot && lot.unit === unit && (lot.measure_id ?? null) === measure_id
      one.missing = Math.max(0, one.amount - (isSame ? lot.amount : 0))
      found.set(key, one)
    }
  }
  return [...found.values()]
}
