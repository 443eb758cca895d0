import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type Heap } from '@/api/client'
import { useSite } from './useFarm'

/** The heaps of the farm that is open. */
export function useHeaps() {
  const { site } = useSite()
  const queries = useQueryClient()
  const siteId = computed(() => site.value?.id ?? 0)

  const { data: heaps } = useQuery({
    queryKey: ['heaps', siteId],
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/heaps', { params: { path: { site: siteId.value } }, signal })),
    enabled: computed(() => siteId.value > 0),
  })

  const refresh = () => queries.invalidateQueries({ queryKey: ['heaps'] })
  const path = (id: number) => ({ params: { path: { id } } })

  const begin = useMutation({
    mutationFn: (batch: number) => answered(api.POST('/api/batches/{id}/build', path(batch))),
    onSettled: refresh,
  })
  const remove = useMutation({
    mutationFn: (id: number) => answered(api.DELETE('/api/heaps/{id}', path(id))),
    onSettled: refresh,
  })
  const restore = useMutation({
    mutationFn: (id: number) => answered(api.POST('/api/heaps/{id}/restore', path(id))),
    onSettled: refresh,
  })

  const taken = (heap: Heap) => {
    queries.setQueryData(['heap', heap.id], heap)
    return Promise.all(
      ['heaps', 'lots', 'history', 'batches'].map((key) => queries.invalidateQueries({ queryKey: [key] })),
    )
  }
  const take = useMutation({
    mutationFn: ({ id, version, what_is_there }: { id: number; version: number; what_is_there: boolean }) =>
      answered(api.POST('/api/heaps/{id}/take', { ...path(id), body: { version, what_is_there } })),
    onSuccess: taken,
  })
  const giveBack = useMutation({
    mutationFn: ({ id, version }: { id: number; version: number }) =>
      answered(api.POST('/api/heaps/{id}/give-back', { ...path(id), body: { version } })),
    onSuccess: taken,
  })

  return { heaps, begin, remove, restore, take, giveBack }
}
