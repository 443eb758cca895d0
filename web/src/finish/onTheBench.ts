import type { BatchPart, ComparedHeap } from '@/api/client'
import { usePerson } from '@/farm/person'
import { useDraft } from '@/mix/draft'

/** A part as another farm can use it: from no lot, and in litres where it was counted in a container of theirs. */
export function elsewhere(part: BatchPart): BatchPart {
  const { measure_litres: each, unit } = part
  const plain = { ...part, lot_id: null }
  if (unit !== 'measure' || each == null) return plain
  return { ...plain, amount: part.amount * each, unit: 'litre', measure_id: null, measure_litres: null }
}

/** Lays what went into a heap on the bench of the farm that is open. */
export function onTheBench(heap: ComparedHeap) {
  const isHere = usePerson().site === heap.site
  const items = isHere ? heap.parts : heap.parts.map(elsewhere)
  const { water_l, shape, method = null } = heap
  useDraft().begin({ items, water_l, heap: shape, method })
}
