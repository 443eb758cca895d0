import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type Heap } from '@/api/client'
import { changed, key } from '@/api/keys'
import { useSite } from '@/farm/useFarm'

/** The heaps of the farm that is open. */
export function useHeaps() {
  const { site } = useSite()
  const queries = useQueryClient()
  const siteId = computed(() => site.value?.id ?? '')

  const { data: heaps } = useQuery({
    queryKey: key('heaps', siteId),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/heaps', { params: { path: { site: siteId.value } }, signal })),
    enabled: computed(() => siteId.value !== ''),
  })

  const refresh = () => changed(queries, 'heap')
  const path = (id: string) => ({ params: { path: { id } } })

  const begin = useMutation({
    mutationFn: (batch: string) => answered(api.POST('/api/batches/{id}/build', path(batch))),
    onSettled: refresh,
  })
  const remove = useMutation({
    mutationFn: (id: string) => answered(api.DELETE('/api/heaps/{id}', path(id))),
    onSettled: refresh,
  })

  const taken = (heap: Heap) => {
    queries.setQueryData(key('heap', heap.id), heap)
    return changed(queries, 'heap')
  }
  const take = useMutation({
    mutationFn: ({ id, head, what_is_there }: { id: string; head: string; what_is_there: boolean }) =>
      answered(api.POST('/api/heaps/{id}/take', { ...path(id), body: { after: head, what_is_there } })),
    onSuccess: taken,
  })
  const giveBack = useMutation({
    mutationFn: ({ id, head }: { id: string; head: string }) =>
      answered(api.POST('/api/heaps/{id}/give-back', { ...path(id), body: { after: head } })),
    onSuccess: taken,
  })

  return { heaps, begin, remove, take, giveBack }
}
