import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { answered, api, type Readings } from '@/api/client'
import { useStock } from './useStock'

/** One lot: what it is, what came and went, the tests on it, and the ways to add to them. */
export function useLot(id: Ref<number>) {
  const queries = useQueryClient()
  const { lots, error, retry } = useStock()
  const lot = computed(() => lots.value?.find((one) => one.id === id.value) ?? null)
  const isGone = computed(() => lots.value !== undefined && lot.value === null)
  const path = computed(() => ({ params: { path: { id: id.value } } }))
  const enabled = computed(() => lot.value !== null)

  const { data: history } = useQuery({
    queryKey: ['history', id],
    queryFn: ({ signal }) => answered(api.GET('/api/lots/{id}/history', { ...path.value, signal })),
    enabled,
  })
  const { data: tests } = useQuery({
    queryKey: ['tests', id],
    queryFn: ({ signal }) => answered(api.GET('/api/lots/{id}/tests', { ...path.value, signal })),
    enabled,
  })

  const refresh = () =>
    Promise.all(['lots', 'history', 'tests'].map((key) => queries.invalidateQueries({ queryKey: [key] })))
  const at = (one: number) => ({ params: { path: { id: one } } })

  const happened = useMutation({
    mutationFn: (body: { kind: 'delivery' | 'use' | 'spoiled'; amount: number; note?: string | null }) =>
      answered(api.POST('/api/lots/{id}/history', { ...path.value, body })),
    onSettled: refresh,
  })
  const undoEvent = useMutation({
    mutationFn: (event: number) => answered(api.DELETE('/api/lot-events/{id}', at(event))),
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
      test: number
      version: number
      made_on: string
      readings: Readings
    }) => answered(api.PUT('/api/tests/{id}', { ...at(test), body: { version, test: body } })),
    onSettled: refresh,
  })
  const removeTest = useMutation({
    mutationFn: (test: number) => answered(api.DELETE('/api/tests/{id}', at(test))),
    onSettled: refresh,
  })
  const restoreTest = useMutation({
    mutationFn: (test: number) => answered(api.POST('/api/tests/{id}/restore', at(test))),
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
    restoreTest,
  }
}
