import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type Lot } from '@/api/client'
import { key } from '@/api/keys'
import { agendaOf } from './agenda'
import { useDraft } from '@/mix/draft'
import { shortOf } from '@/mix/onHand'
import { useBatches } from './useBatches'
import { useBench } from '@/mix/useBench'
import { useAbout, useNames } from '@/farm/useFarm'

/** What is to be done before what lies on the bench is built. */
export function usePrepare() {
  const store = useDraft()
  const { request: bench, answer: sums, lots } = useBench()
  const { batches } = useBatches()
  const { about } = useAbout()
  const { named } = useNames()

  const today = computed(() => about.value?.today ?? '')
  const hasMix = computed(() => sums.value?.mix != null)
  /** A batch whose amounts were taken from stock already is missing nothing. */
  const isTaken = computed(
    () => batches.value?.find(({ id }) => id === store.draft.saved?.id)?.taken_at != null,
  )

  const missing = computed(() =>
    store.draft.items.map((part, index) =>
      isTaken.value ? 0 : (shortOf(part, lots.value, sums.value?.mix?.items[index]?.kg)?.missing ?? 0),
    ),
  )

  const body = computed(() => ({
    recipe: bench.value.recipe,
    heap: store.draft.heap,
    heaps: store.draft.heaps,
    build_on: store.draft.build_on,
    starters: store.draft.starters,
    missing: missing.value,
  }))
  const { data, error, refetch } = useQuery({
    queryKey: key('prepare', body),
    queryFn: ({ signal }) => answered(api.POST('/api/prepare', { body: body.value, signal })),
    enabled: computed(() => hasMix.value && today.value !== ''),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  })
  const { data: rows } = useQuery({
    queryKey: key('starters'),
    queryFn: ({ signal }) => answered(api.GET('/api/starters', { signal })),
    staleTime: Infinity,
  })

  /** The lots that can stand for an ingredient: of one of the materials, or of a group of them. */
  function standingFor(words: string[]): Lot[] {
    return (lots.value ?? []).filter((lot) => {
      const group = named.value.get(lot.material)?.group ?? ''
      return lot.kg > 0 && (words.includes(lot.material) || words.includes(group))
    })
  }

  return {
    answer: computed(() => (hasMix.value ? data.value : undefined)),
    isEmpty: computed(() => sums.value !== undefined && !hasMix.value),
    error,
    retry: refetch,
    rows,
    today,
    days: computed(() => (data.value ? agendaOf(data.value, today.value) : [])),
    standingFor,
  }
}
