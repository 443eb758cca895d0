import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api } from '@/api/client'
import { key } from '@/api/keys'
import { useSite } from '@/farm/useFarm'

/** The heaps of the farm that is open, as strips of days. */
export function useStrips() {
  const { site } = useSite()
  const siteId = computed(() => site.value?.id ?? '')
  const {
    data: strips,
    error,
    refetch: retry,
  } = useQuery({
    queryKey: key('strips', siteId),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/strips', { params: { path: { site: siteId.value } }, signal })),
    enabled: computed(() => siteId.value !== ''),
    staleTime: 0,
  })
  return { strips, error, retry }
}
