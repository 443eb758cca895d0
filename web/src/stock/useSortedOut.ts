import { useMutation, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type SortedOutFields } from '@/api/client'
import { key, useChanged } from '@/api/keys'
import { useSite } from '@/farm/useFarm'

/** What was sorted out and not used at the site that is open. */
export function useSortedOut() {
  const { site } = useSite()
  const siteId = computed(() => site.value?.id ?? '')

  const { data: records } = useQuery({
    queryKey: key('sorted-out', siteId),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/sorted-out', { params: { path: { site: siteId.value } }, signal })),
    enabled: computed(() => siteId.value !== ''),
  })
  const refresh = useChanged('sorted-out')

  const add = useMutation({
    mutationFn: (body: SortedOutFields) =>
      answered(api.POST('/api/sites/{site}/sorted-out', { params: { path: { site: siteId.value } }, body })),
    onSettled: refresh,
  })
  const remove = useMutation({
    mutationFn: (id: string) => answered(api.DELETE('/api/sorted-out/{id}', { params: { path: { id } } })),
    onSettled: refresh,
  })

  return { records, add, remove }
}
