import { useMutation, useQuery } from '@tanstack/vue-query'
import { v7 } from 'uuid'
import { computed, watch } from 'vue'
import { answered, api, type Heap } from '@/api/client'
import { key } from '@/api/keys'
import { useOutbox, WAITS } from '@/api/outbox/useOutbox'
import { noteHeaps } from '@/farm/firstPath'
import { useSite } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { doneTo, listWithWaiting } from './ahead'

/** The heaps of the farm that is open. */
export function useHeaps() {
  const { site } = useSite()
  const siteId = computed(() => site.value?.id ?? '')

  const { data: told } = useQuery({
    queryKey: key('heaps', siteId),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/heaps', { params: { path: { site: siteId.value } }, signal })),
    enabled: computed(() => siteId.value !== ''),
  })

  watch(told, (list) => list && noteHeaps(list.some(({ laid }) => laid > 0)), { immediate: true })

  const outbox = useOutbox()
  const { does, to } = outbox
  const heaps = computed(() => told.value && listWithWaiting(told.value, outbox.comes))
  const { t } = useSay()

  /** The heap that a batch would be begun as is known before: it can be begun where there is no signal. */
  const begin = useMutation({
    mutationFn: async (batch: string) => {
      const id = v7()
      const ahead = await answered(api.GET('/api/batches/{id}/heap', { params: { path: { id: batch } } }))
      const shows: Heap = { ...ahead, id, head: id }
      const path = { batch, site: siteId.value }
      const begun = await does<Heap>({
        kind: 'heap-begin',
        of: id,
        path,
        query: { id },
        shows,
        says: ahead.name,
      })
      return begun === WAITS ? shows : begun
    },
  })
  const remove = useMutation({
    mutationFn: ({ id, name }: { id: string; name: string }) =>
      does({ kind: 'heap-remove', of: id, path: { id }, says: name }),
  })

  const take = useMutation({
    mutationFn: ({ heap, what_is_there }: { heap: Heap; what_is_there: boolean }) =>
      does(doneTo(heap, to(heap.id), 'heap-take', t('done.stock-taken'), { what_is_there })),
  })
  const giveBack = useMutation({
    mutationFn: (heap: Heap) =>
      does(doneTo(heap, to(heap.id), 'heap-give-back', t('done.stock-returned'), { what_is_there: false })),
  })

  return { heaps, begin, remove, take, giveBack }
}
