import { computed } from 'vue'
import type { BatchPart, Lot } from '@/api/client'
import { useLimits } from '@/api/useLimits'
import { useStock } from '@/stock/useStock'
import { useUnits } from '@/words/useUnits'
import { useDraft } from './draft'

/** What a step can be made with: a part on the bench, or a lot still in stock. */
export interface StepLot {
  /** Its place on the bench, if it is there. */
  index: number | null
  lot: Lot | null
  part: BatchPart
  /** One step of it, in the units kept. */
  step: number
  /** Steps left in stock. */
  canAdd: number
}

/** What one step of an amount is, in the units shown and in those kept. */
export function useSteps() {
  const { stepOf } = useLimits()
  const units = useUnits()
  function keptStep(part: Pick<BatchPart, 'unit' | 'amount'>): number {
    const quantity = part.unit === 'kg' ? 'mass' : part.unit === 'litre' ? 'volume' : null
    return quantity ? units.kept(stepOf(part), quantity) : stepOf(part)
  }
  return { stepOf, keptStep }
}

/** All that a mix can be put right with: what is in it, then what else is in stock. */
export function useStepLots() {
  const store = useDraft()
  const { keptStep } = useSteps()
  const { lots, measures } = useStock()

  return computed<StepLot[]>(() => {
    const on = store.draft.items.map((part, index) => {
      const lot = lots.value?.find(({ id }) => id === part.lot_id) ?? null
      const step = keptStep(part)
      return { index, lot, part, step, canAdd: canAdd(lot, part.amount, part, step) }
    })
    const isOn = new Set(store.draft.items.map(({ lot_id }) => lot_id))
    const waiting = (lots.value ?? [])
      .filter((lot) => !isOn.has(lot.id) && lot.kg > 0 && !lot.must_not_go_in)
      .map((lot) => {
        const step = keptStep(lot)
        const litres = measures.value?.find(({ id }) => id === lot.measure_id)?.litres
        const part: BatchPart = { ...lot, lot_id: lot.id, measure_litres: litres }
        return { index: null, lot, part, step, canAdd: canAdd(lot, 0, part, step) }
      })
    return [...on, ...waiting]
  })
}

function canAdd(lot: Lot | null, used: number, part: BatchPart, step: number): number {
  // A lot that was removed gives no more; what belongs to none has no limit.
  if (!lot && part.lot_id) return 0
  if (!lot || lot.unit !== part.unit || lot.measure_id !== part.measure_id) return 1000
  return Math.max(0, (lot.amount - used) / step)
}
