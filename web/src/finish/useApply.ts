import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { answered, api, type ApplyRequest } from '@/api/client'
import { key } from '@/api/keys'

/** How much compost a use needs and how far what there is goes. */
export function useApply(body: Ref<ApplyRequest | null>) {
  const { data, error } = useQuery({
    queryKey: key('apply', body),
    queryFn: ({ signal }) => answered(api.POST('/api/apply', { body: body.value!, signal })),
    enabled: computed(() => body.value !== null),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    retry: false,
  })
  return { told: data, error }
}
