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

  const refresh = () =>
    Promise.all(['batches', 'lots', 'history'].map((key) => queries.invalidateQueries({ queryKey: [key] })))
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
  const take = useMutation({
    mutationFn: ({ id, version, what_is_there }: { id: number; version: number; what_is_there: boolean }) =>
      answered(api.POST('/api/batches/{id}/take', { ...path(id), body: { version, what_is_there } })),
    onSettled: refresh,
  })
  const giveBack = useMutation({
    mutationFn: ({ id, version }: { id: number; version: number }) =>
      answered(api.POST('/api/batches/{id}/give-back', { ...path(id), body: { version } })),
    onSettled: refresh,
  })
  const current = (id: number) => answered(api.GET('/api/batches/{id}', path(id)))

  return { batches, error, retry, create, change, remove, restore, take, giveBack, current }
}
