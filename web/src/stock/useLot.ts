import { useMutation, useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { answered, api, type LotAct, type Readings } from '@/api/client'
import { key, useChanged } from '@/api/keys'
import { useStock } from './useStock'

/** One lot: what it is, what came and went, the tests on it, and the ways to add to them. */
export function useLot(id: Ref<string>) {
  const { lots, error, retry } = useStock()
  const lot = computed(() => lots.value?.find((one) => one.id === id.value) ?? null)
  const isGone = computed(() => lots.value !== undefined && lot.value === null)
  const path = computed(() => ({ params: { path: { id: id.value } } }))
  const enabled = computed(() => lot.value !== null)

  const { data: history } = useQuery({
    queryKey: key('history', id),
    queryFn: ({ signal }) => answered(api.GET('/api/lots/{id}/history', { ...path.value, signal })),
    enabled,
  })
  const { data: tests } = useQuery({
    queryKey: key('tests', id),
    queryFn: ({ signal }) => answered(api.GET('/api/lots/{id}/tests', { ...path.value, signal })),
    enabled,
  })

  const refresh = useChanged('lot')
  const at = (one: string) => ({ params: { path: { id: one } } })

  const happened = useMutation({
    mutationFn: (body: { kind: LotAct; amount: number; note?: string | null }) =>
      answered(api.POST('/api/lots/{id}/history', { ...path.value, body })),
    onSettled: refresh,
  })
  const undoEvent = useMutation({
    mutationFn: (event: string) => answered(api.DELETE('/api/lot-events/{id}', at(event))),
    onSettled: refresh,
  })
  const addTest = useMutation({
    mutationFn: (body: { made_on: string; readings: Readings }) =>
      answered(api.POST('/api/lots/{id}/tests', { ...path.value, body })),
    onSettled: refresh,
  })
  const changeTest = useMutation({
    mutationFn: ({
      test,
      version,
      ...body
    }: {
      test: string
      version: number
      made_on: string
      readings: Readings
    }) => answered(api.PUT('/api/tests/{id}', { ...at(test), body: { version, test: body } })),
    onSettled: refresh,
  })
  const removeTest = useMutation({
    mutationFn: (test: string) => answered(api.DELETE('/api/tests/{id}', at(test))),
    onSettled: refresh,
  })

  return {
    lot,
    isGone,
    error,
    retry,
    history,
    tests,
    happened,
    undoEvent,
    addTest,
    changeTest,
    removeTest,
  }
}
