/** What is said of a mix as the recipe that the server sums. */
import type { BatchFields, BatchPart, BenchRequest, Lot, RecipeItem } from '@/api/client'

/** A batch as a question to the bench, with no steps to try: its sums and its layers. */
export function questionOf(batch: BatchFields, lots: Lot[]): BenchRequest {
  const { items, water_l, method, heap, heaps } = batch
  const ageOf = (part: BatchPart) => lots.find((lot) => lot.id === part.lot_id)?.age_days
  return {
    recipe: {
      format: 'zymarch-recipe/1',
      measures: measuresOf(items),
      water_l,
      items: items.map((part) => itemOf(part, part.amount, ageOf(part))),
      method,
    },
    heap,
    heaps: heaps ?? 1,
  }
}

/** Older than this it has lost what it loses. */
const OLDEST_DAYS = 3650

/** A measure with a volume of its own, as a recipe names it: volumes of saved batches may differ from today's. */
function measureName(part: BatchPart): string {
  return `${part.measure_id}@${part.measure_litres}`
}

export function measuresOf(parts: BatchPart[]): { id: string; litres: number }[] {
  const named = new Map<string, number>()
  for (const part of parts) {
    if (part.unit === 'measure' && part.measure_litres) named.set(measureName(part), part.measure_litres)
  }
  return [...named].map(([id, litres]) => ({ id, litres }))
}

export function itemOf(part: BatchPart, amount: number, age?: number): RecipeItem {
  const { material, unit, own, tests } = part
  const known = { ...own, tests, ...(age ? { age_days: Math.min(age, OLDEST_DAYS) } : {}) }
  if (unit === 'kg') return { material, kg: amount, ...known }
  if (unit === 'litre') return { material, litres: amount, ...known }
  return { material, amount, measure: measureName(part), ...known }
}
