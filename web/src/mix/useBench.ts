import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, shallowRef, watch } from 'vue'
import { answered, api, type BatchPart, type BenchAnswer, type BenchRequest, type Lot } from '@/api/client'
import { key } from '@/api/keys'
import { itemOf, measuresOf } from './recipe'
import { trouble } from '@/api/trouble'
import { useDraft } from './draft'
import { usePerson } from '@/farm/person'
import { useSite } from '@/farm/useFarm'
import { useStock } from '@/stock/useStock'

/** A part on the bench, with the lot it comes from. */
export interface OnBench {
  part: BatchPart
  lot: Lot | null
}

/**
 * All figures of what lies on the bench, asked anew when an amount changes;
 * the last ones stay on screen meanwhile.
 */
export function useBench() {
  const store = useDraft()
  const person = usePerson()
  const { lots, measures } = useStock()
  const { site } = useSite()

  const onBench = computed<OnBench[]>(() =>
    store.draft.items.map((part) => ({
      part,
      lot: lots.value?.find(({ id }) => id === part.lot_id) ?? null,
    })),
  )

  // The farm knows its stock: which lots lie here is all it has to be told.
  const request = computed<BenchRequest>(() => ({
    recipe: {
      format: 'zymarch-recipe/1',
      measures: measuresOf(store.draft.items),
      water_l: store.draft.water_l,
      items: onBench.value.map(({ part, lot }) => itemOf(part, part.amount, lot?.age_days)),
      method: store.draft.method,
    },
    lots: store.draft.items.map((part) => part.lot_id ?? null),
    site: site.value?.id ?? null,
    units: person.units,
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

  return { answer, error, isOld, isFresh, retry, request, onBench, lots, measures }
}
