import { useMutation } from '@tanstack/vue-query'
import { answered, api } from '@/api/client'
import { useChanged } from '@/api/keys'

/** Ticks what is prepared off, with the batch that it is for. */
export function useTicks() {
  const refresh = useChanged('batch')
  return useMutation({
    mutationFn: ({ batch, key, done }: { batch: string; key: string; done: boolean }) =>
      answered(api.POST('/api/batches/{id}/tick', { params: { path: { id: batch } }, body: { key, done } })),
    onSettled: refresh,
  })
}
