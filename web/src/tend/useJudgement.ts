import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import type { Ref } from 'vue'
import { answered, api } from '@/api/client'
import { key } from '@/api/keys'

/** What is judged of a heap. */
export function useJudgement(id: Ref<string>) {
  const {
    data: judgement,
    error,
    refetch: retry,
  } = useQuery({
    queryKey: key('judgement', id),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/heaps/{id}/judgement', { params: { path: { id: id.value } }, signal })),
    staleTime: 0,
    placeholderData: keepPreviousData,
  })
  return { judgement, error, retry }
}
