import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type BatchFields } from '@/api/client'
import { useSite } from './useFarm'

/** The saved batches of the farm that is open, and the ways to change them. */
export function useBatches() {
  const { site } = useSite()
  const queries = useQueryClient()
  const siteId = computed(() => site.value?.id ?? 0)

  const {
    data: batches,
    error,
    refetch: retry,
  } = useQuery({
    queryKey: ['batches', siteId],
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/batches', { params: { path: { site: siteId.value } }, signal })),
    enabled: computed(() => siteId.value > 0),
  })

  const refresh = () => queries.invalidateQueries({ queryKey: ['batches'] })
  const path = (id: number) => ({ params: { path: { id } } })

  const create = useMutation({
    mutationFn: (batch: BatchFields) =>
      answered(
        api.POST('/api/sites/{site}/batches', { params: { path: { site: siteId.value } }, body: batch }),
      ),
    onSettled: refresh,
  })
  const change = useMutation({
    mutationFn: ({ id, version, batch }: { id: number; version: number; batch: BatchFields }) =>
      answered(api.PUT('/api/batches/{id}', { ...path(id), body: { version, batch } })),
    onSettled: refresh,
  })
  const remove = useMutation({
    mutationFn: (id: number) => answered(api.DELETE('/api/batches/{id}', path(id))),
    onSettled: refresh,
  })
  const restore = useMutation({
    mutationFn: (id: number) => answered(api.POST('/api/batches/{id}/restore', path(id))),
    onSettled: refresh,
  })
  const current = (id: number) => answered(api.GET('/api/batches/{id}', path(id)))

  return { batches, error, retry, create, change, remove, restore, current }
}
