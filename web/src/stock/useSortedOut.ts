import { useMutation, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { v7 } from 'uuid'
import { answered, api, type SortedOut, type SortedOutFields } from '@/api/client'
import { key } from '@/api/keys'
import { useOutbox } from '@/api/outbox/useOutbox'
import { useSite } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'

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
  const { does } = useOutbox()
  const say = useSay()
  const said = ({ material, label }: Pick<SortedOut, 'material' | 'label'>) => say.nameOf(material, label)

  const add = useMutation({
    mutationFn: (body: SortedOutFields) => {
      const id = v7()
      const path = { site: siteId.value }
      return does({
        kind: 'sorted-out-add',
        of: id,
        path,
        query: { id },
        body: { ...body },
        says: said(body),
      })
    },
  })
  const remove = useMutation({
    mutationFn: (record: SortedOut) =>
      does({ kind: 'sorted-out-remove', of: record.id, path: { id: record.id }, says: said(record) }),
  })

  return { records, add, remove }
}
