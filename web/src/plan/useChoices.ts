import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, type ChoiceLine } from '@/api/client'
import { key } from '@/api/keys'
import { linesOf } from '@/api/lines'
import { AIMS, aimsFor, type Answered, distinct, offersOf, requestOf } from './choices'
import { useDraft } from '@/mix/draft'
import { useWants } from './wants'
import { useLimits } from '@/api/useLimits'
import { useMethods, useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { useStock } from '@/stock/useStock'

const inOrder = (found: Answered[]) =>
  found.sort((one, other) => AIMS.indexOf(one.aim) - AIMS.indexOf(other.aim))

/** The best mixes of the stock by several aims, for what is wanted. */
export function useChoices() {
  const say = useSay()
  const { wants } = useWants()
  const { stepOf } = useLimits()
  const { named } = useNames()
  const store = useDraft()
  const { methods } = useMethods()
  /** The method that the bench is set to. */
  const method = computed(() => methods.value?.find(({ id }) => id === store.draft.method) ?? null)
  const { lots, measures, error: stockError, retry: retryStock } = useStock()

  const offers = computed(() => offersOf(lots.value ?? [], measures.value ?? [], stepOf))
  /** Beside the stock: lots that are used up for now, and the farm's own materials. */
  const known = computed(() => {
    const onHand = new Set(offers.value.map(({ lot }) => lot.material))
    const empty = (lots.value ?? []).filter((lot) => !lot.must_not_go_in).map((lot) => lot.material)
    const own = [...named.value.values()].filter((one) => one.is_own).map(({ id }) => id)
    return [...new Set([...empty, ...own])].filter((id) => !onHand.has(id))
  })
  const asked = computed(() => ({
    aims: aimsFor(offers.value),
    request: requestOf(offers.value, {
      ...wants,
      bucket: say.bucket(),
      known: known.value,
      windows: method.value,
      method: method.value?.id ?? null,
    }),
  }))

  const query = useQuery<Answered[]>({
    queryKey: key('choices', asked),
    queryFn: async ({ signal, client, queryKey }) => {
      const { aims, request } = asked.value
      const { response } = await api.POST('/api/choices', {
        params: { query: { aims: aims.join(',') } },
        body: request,
        signal,
        parseAs: 'stream',
      })
      const found: Answered[] = []
      // What was found for other wants stays until its aim is told anew, so that nothing jumps.
      const before = query.data.value ?? []
      for await (const { aim, answer } of linesOf<ChoiceLine>(response)) {
        if (!answer) continue
        found.push({ aim, answer, request: { ...request, aim } })
        const rest = before.filter((old) => found.every((one) => one.aim !== old.aim))
        // Each is shown as it comes.
        client.setQueryData(queryKey, inOrder([...found, ...rest]))
      }
      return inOrder(found)
    },
    enabled: computed(
      () => methods.value !== undefined && measures.value !== undefined && offers.value.length > 0,
    ),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
  })
  /** Whether more may come yet. */
  const isWhole = computed(() => query.data.value !== undefined && !query.isFetching.value)

  const choices = computed(() =>
    distinct((query.data.value ?? []).filter(({ answer }) => answer.status === 'ok')),
  )
  /** What comes nearest, when nothing fits. */
  const nearest = computed(() =>
    choices.value.length || !isWhole.value ? null : (query.data.value?.[0] ?? null),
  )

  return {
    method,
    lots,
    offers,
    choices,
    nearest,
    isReady: computed(() => isWhole.value || choices.value.length > 0),
    isWhole,
    error: computed(() => stockError.value ?? query.error.value),
    retry: () => Promise.all([retryStock(), query.refetch()]),
  }
}
