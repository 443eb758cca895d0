import { useQuery } from '@tanstack/vue-query'
import { computed, watch } from 'vue'
import { answered, api } from '@/api/client'
import { key } from '@/api/keys'
import { noteHeaps } from '@/farm/firstPath'
import { useSite } from '@/farm/useFarm'
import { useTicks } from '@/plan/useTicks'

/** What is to be done today at the farm that is open, and on the days after. */
export function useToday() {
  const { site } = useSite()
  const id = computed(() => site.value?.id ?? '')
  const {
    data: today,
    error,
    refetch: retry,
  } = useQuery({
    queryKey: key('today', id),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{id}/today', { params: { path: { id: id.value } }, signal })),
    enabled: computed(() => id.value !== ''),
    staleTime: 0,
  })
  watch(today, (told) => told && noteHeaps(told.heaps.length > 0), { immediate: true })

  const tick = useTicks()
  return { site, today, error, retry, tick }
}
