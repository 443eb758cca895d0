import { useMutation, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type Lot, type LotFields, type MeasureFields } from '@/api/client'
import { key, useChanged } from '@/api/keys'
import { useSite } from '@/farm/useFarm'

/** The lots and measures of the farm that is open, and the ways to change them. */
export function useStock() {
  const { site } = useSite()
  const siteId = computed(() => site.value?.id ?? '')
  const enabled = computed(() => siteId.value !== '')

  const lotsQuery = useQuery({
    queryKey: key('lots', siteId),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/lots', { params: { path: { site: siteId.value } }, signal })),
    enabled,
  })
  const measuresQuery = useQuery({
    queryKey: key('measures', siteId),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/measures', { params: { path: { site: siteId.value } }, signal })),
    enabled,
  })

  const refresh = useChanged('lot')
  const path = (id: string) => ({ params: { path: { id } } })

  const add = useMutation({
    mutationFn: (lot: LotFields) =>
      answered(api.POST('/api/sites/{site}/lots', { params: { path: { site: siteId.value } }, body: lot })),
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
  const addMeasure = useMutation({
    mutationFn: (measure: MeasureFields) =>
      answered(
        api.POST('/api/sites/{site}/measures', { params: { path: { site: siteId.value } }, body: measure }),
      ),
    onSettled: useChanged('measure'),
  })

  return {
    lots: lotsQuery.data,
    measures: measuresQuery.data,
    error: computed(() => lotsQuery.error.value ?? measuresQuery.error.value),
    retry: () => Promise.all([lotsQuery.refetch(), measuresQuery.refetch()]),
    add,
    change,
    remove,
    addMeasure,
  }
}

/** What a lot is, without what the server reckons of it. */
export function fieldsOf(lot: Lot): LotFields {
  const { material, label, amount, unit, measure_id, own, gathered_on, price } = lot
  return { material, label, amount, unit, measure_id, own, gathered_on, price }
}
