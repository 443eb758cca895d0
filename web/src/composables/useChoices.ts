import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { answered, api } from '@/api/client'
import { AIMS, distinct, offersOf, requestOf } from '@/figures/choices'
import { stepOf } from './useBench'
import { useSay } from './useSay'
import { useStock } from './useStock'

/** The best mixes of the stock by several aims, for a size wanted. */
export function useChoices(size: Ref<[number, number]>, isWhole: Ref<boolean>) {
  const say = useSay()
  const { lots, measures, error: stockError, retry: retryStock } = useStock()

  const offers = computed(() => offersOf(lots.value ?? [], measures.value ?? [], stepOf))
  const requests = computed(() =>
    AIMS.map((aim) =>
      requestOf(offers.value, {
        aim,
        size: size.value,
        isWhole: isWhole.value,
        bucket: say.bucket(),
      }),
    ),
  )

  const query = useQuery({
    queryKey: ['choices', requests],
    queryFn: async ({ signal }) => {
      const answers = await Promise.all(
        requests.value.map((body) => answered(api.POST('/api/formulate', { body, signal }))),
      )
      return AIMS.map((aim, index) => ({ aim, answer: answers[index]! }))
    },
    enabled: computed(() => measures.value !== undefined && offers.value.length > 0),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
  })

  const choices = computed(() =>
    distinct((query.data.value ?? []).filter(({ answer }) => answer.status === 'ok')),
  )
  /** What comes nearest, when nothing fits. */
  const nearest = computed(() => (choices.value.length ? null : (query.data.value?.[0]?.answer ?? null)))

  return {
    lots,
    offers,
    choices,
    nearest,
    isReady: computed(() => query.data.value !== undefined),
    error: computed(() => stockError.value ?? query.error.value),
    retry: () => Promise.all([retryStock(), query.refetch()]),
  }
}
