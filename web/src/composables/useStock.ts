import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type Lot, type LotFields, type MeasureFields } from '@/api/client'
import { useSite } from './useFarm'

/** The lots and measures of the farm that is open, and the ways to change them. */
export function useStock() {
  const { site } = useSite()
  const queries = useQueryClient()
  const siteId = computed(() => site.value?.id ?? 0)
  const enabled = computed(() => siteId.value > 0)

  const lotsQuery = useQuery({
    queryKey: ['lots', siteId],
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/lots', { params: { path: { site: siteId.value } }, signal })),
    enabled,
  })
  const measuresQuery = useQuery({
    queryKey: ['measures', siteId],
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/measures', { params: { path: { site: siteId.value } }, signal })),
    enabled,
  })

  const refresh = () =>
    Promise.all(['lots', 'history'].map((key) => queries.invalidateQueries({ queryKey: [key] })))
  const path = (id: number) => ({ params: { path: { id } } })

  const add = useMutation({
    mutationFn: (lot: LotFields) =>
      answered(api.POST('/api/sites/{site}/lots', { params: { path: { site: siteId.value } }, body: lot })),
    onSettled: refresh,
  })
  const change = useMutation({
    mutationFn: ({ id, version, lot }: { id: number; version: number; lot: LotFields }) =>
      answered(api.PUT('/api/lots/{id}', { ...path(id), body: { version, lot } })),
    onSettled: refresh,
  })
  const remove = useMutation({
    mutationFn: (id: number) => answered(api.DELETE('/api/lots/{id}', path(id))),
    onSettled: refresh,
  })
  const restore = useMutation({
    mutationFn: (id: number) => answered(api.POST('/api/lots/{id}/restore', path(id))),
    onSettled: refresh,
  })
  const addMeasure = useMutation({
    mutationFn: (measure: MeasureFields) =>
      answered(
        api.POST('/api/sites/{site}/measures', { params: { path: { site: siteId.value } }, body: measure }),
      ),
    onSettled: () => queries.invalidateQueries({ queryKey: ['measures'] }),
  })

  return {
    lots: lotsQuery.data,
    measures: measuresQuery.data,
    error: computed(() => lotsQuery.error.value ?? measuresQuery.error.value),
    retry: () => Promise.all([lotsQuery.refetch(), measuresQuery.refetch()]),
    add,
    change,
    remove,
    restore,
    addMeasure,
  }
}

/** What a lot is, without what the server reckons of it. */
export function fieldsOf(lot: Lot): LotFields {
  const { material, label, amount, unit, measure_id, own, gathered_on, price } = lot
  return { material, label, amount, unit, measure_id, own, gathered_on, price }
}
