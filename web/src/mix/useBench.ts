import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, shallowRef, watch } from 'vue'
import {
  answered,
  api,
  type BatchPart,
  type BenchAnswer,
  type BenchRequest,
  type Lot,
  type Unit,
} from '@/api/client'
import { key } from '@/api/keys'
import { fromShown, type System } from '@/words/units'
import { itemOf, measuresOf } from './recipe'
import { trouble } from '@/api/trouble'
import { useDraft } from './draft'
import { usePerson } from '@/farm/person'
import { useStock } from '@/stock/useStock'

/** One step of a part in the units shown: a measure, one or ten of a weight, ten of a volume. */
export function stepOf({ unit, amount }: { unit: string; amount: number }): number {
  if (unit === 'measure') return 1
  return unit === 'kg' && amount < 20 ? 1 : 10
}

/** The same in the units kept. */
function keptStep(part: { unit: Unit; amount: number }, system: System): number {
  const quantity = part.unit === 'kg' ? 'mass' : part.unit === 'litre' ? 'volume' : null
  return quantity ? fromShown(stepOf(part), quantity, system) : stepOf(part)
}

/** What a step can be made with: a part on the bench, or a lot still in stock. */
export interface StepLot {
  /** Its place on the bench, if it is there. */
  index: number | null
  lot: Lot | null
  part: BatchPart
  step: number
}

/**
 * All figures of what lies on the bench, asked anew when an amount changes;
 * the last ones stay on screen meanwhile.
 */
export function useBench() {
  const store = useDraft()
  const person = usePerson()
  const { lots, measures } = useStock()

  const waiting = computed(() => (lots.value ?? []).filter((lot) => !isOnBench(lot, store.draft.items)))

  const stepLots = computed<StepLot[]>(() => [
    ...store.draft.items.map((part, index) => ({
      index,
      lot: lots.value?.find((lot) => lot.id === part.lot_id) ?? null,
      part,
      step: keptStep(part, person.units),
    })),
    ...waiting.value
      .filter((lot) => lot.kg > 0 && !lot.must_not_go_in)
      .map((lot) => ({
        index: null,
        lot,
        part: {
          ...lot,
          lot_id: lot.id,
          measure_litres: measures.value?.find((measure) => measure.id === lot.measure_id)?.litres,
        },
        step: keptStep(lot, person.units),
      })),
  ])

  const request = computed<BenchRequest>(() => ({
    recipe: {
      format: 'zymarch-recipe/1',
      measures: measuresOf(stepLots.value.map(({ part }) => part)),
      water_l: store.draft.water_l,
      items: store.draft.items.map((part, at) => itemOf(part, part.amount, ageOf(stepLots.value[at]))),
      method: store.draft.method,
    },
    steps: stepLots.value.map(({ index, lot, part, step }) => ({
      item: index,
      can_add: canAdd(lot, index === null ? 0 : part.amount, part, step),
      with: itemOf(part, step, lot?.age_days),
    })),
    heap: store.draft.heap,
    heaps: store.draft.heaps,
  }))

  const {
    data,
    error,
    isPlaceholderData,
    refetch: retry,
  } = useQuery({
    queryKey: key('bench', request),
    queryFn: ({ signal }) => answered(api.POST('/api/bench', { body: request.value, signal })),
    // A lot is counted in a measure: neither is known before both are.
    enabled: computed(() => lots.value !== undefined && measures.value !== undefined),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
  })

  // What was reckoned last stays, should the next not come.
  const answer = shallowRef<BenchAnswer>()
  watch(data, (now) => now && (answer.value = now), { immediate: true })
  /** What is shown is of an earlier state, and the server does not give the new one. */
  const isOld = computed(
    () =>
      answer.value !== undefined &&
      (error.value !== null || (trouble.value !== null && (isPlaceholderData.value || !data.value))),
  )

  /** What is shown is of just this state. */
  const isFresh = computed(() => data.value !== undefined && !isPlaceholderData.value)

  return { answer, error, isOld, isFresh, retry, request, stepLots, waiting, lots, measures }
}

function isOnBench(lot: Lot, items: BatchPart[]): boolean {
  return items.some((part) => part.lot_id === lot.id)
}

/** Steps left in stock. */
function canAdd(lot: Lot | null, used: number, part: BatchPart, step: number): number {
  // A lot that was removed gives no more; what belongs to none has no limit.
  if (!lot && part.lot_id) return 0
  if (!lot || lot.unit !== part.unit || lot.measure_id !== part.measure_id) return 1000
  return Math.max(0, (lot.amount - used) / step)
}

/** Days that the lot of a part has lain: stored dung loses nitrogen. */
const ageOf = (step: StepLot | undefined) => step?.lot?.age_days
