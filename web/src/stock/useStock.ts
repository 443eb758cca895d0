import { useMutation, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type Lot, type LotFields } from '@/api/client'
import { key, useChanged } from '@/api/keys'
import { useMeasureList, useSite } from '@/farm/useFarm'

/** The lots and measures of the farm that is open. */
export function useStock() {
  const { site } = useSite()
  const { measures, error: measuresError, refetch } = useMeasureList()
  const siteId = computed(() => site.value?.id ?? '')

  const lots = useQuery({
    queryKey: key('lots', siteId),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/lots', { params: { path: { site: siteId.value } }, signal })),
    enabled: computed(() => siteId.value !== ''),
  })

  return {
    lots: lots.data,
    measures,
    error: computed(() => lots.error.value ?? measuresError.value),
    retry: () => Promise.all([lots.refetch(), refetch()]),
  }
}

/** The ways to change the lots of the farm that is open. */
export function useLotChanges() {
  const { site } = useSite()
  const refresh = useChanged('lot')
  const path = (id: string) => ({ params: { path: { id } } })

  const add = useMutation({
    mutationFn: (lot: LotFields) =>
      answered(
        api.POST('/api/sites/{site}/lots', { params: { path: { site: site.value?.id ?? '' } }, body: lot }),
      ),
    onSettled: refresh,
  })
  const change = useMutation({
    mutationFn: ({ id, version, lot }: { id: string; version: number; lot: LotFields }) =>
      answered(api.PUT('/api/lots/{id}', { ...path(id), body: { version, lot } })),
    onSettled: refresh,
  })
  const remove = useMutation({
    mutationFn: (id: string) => answered(api.DELETE('/api/lots/{id}', path(id))),
    onSettled: refresh,
  })
  return { add, change, remove }
}

/** What a lot is, without what the server reckons of it. */
export function fieldsOf(lot: Lot): LotFields {
  const { material, label, amount, unit, measure_id, own, gathered_on, price } = lot
  return { material, label, amount, unit, measure_id, own, gathered_on, price }
}
