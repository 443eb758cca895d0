import { useMutation, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type BatchFields } from '@/api/client'
import { key, useChanged } from '@/api/keys'
import { useSite } from '@/farm/useFarm'

/** The saved batches of the farm that is open, and the ways to change them. */
export function useBatches() {
  const { site } = useSite()
  const siteId = computed(() => site.value?.id ?? '')

  const {
    data: batches,
    error,
    refetch: retry,
  } = useQuery({
    queryKey: key('batches', siteId),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/batches', { params: { path: { site: siteId.value } }, signal })),
    enabled: computed(() => siteId.value !== ''),
  })

  const refresh = useChanged('batch')
  const path = (id: string) => ({ params: { path: { id } } })

  const create = useMutation({
    mutationFn: (batch: BatchFields) =>
      answered(
        api.POST('/api/sites/{site}/batches', { params: { path: { site: siteId.value } }, body: batch }),
      ),
    onSettled: refresh,
  })
  const change = useMutation({
    mutationFn: ({ id, version, batch }: { id: string; version: number; batch: BatchFields }) =>
      answered(api.PUT('/api/batches/{id}', { ...path(id), body: { version, batch } })),
    onSettled: refresh,
  })
  const remove = useMutation({
    mutationFn: (id: string) => answered(api.DELETE('/api/batches/{id}', path(id))),
    onSettled: refresh,
  })
  const take = useMutation({
    mutationFn: ({ id, version, what_is_there }: { id: string; version: number; what_is_there: boolean }) =>
      answered(api.POST('/api/batches/{id}/take', { ...path(id), body: { version, what_is_there } })),
    onSettled: refresh,
  })
  const giveBack = useMutation({
    mutationFn: ({ id, version }: { id: string; version: number }) =>
      answered(api.POST('/api/batches/{id}/give-back', { ...path(id), body: { version } })),
    onSettled: refresh,
  })
  const current = (id: string) => answered(api.GET('/api/batches/{id}', path(id)))

  return { batches, error, retry, create, change, remove, take, giveBack, current }
}
