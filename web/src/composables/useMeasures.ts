import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { answered, api, type MeasureFields } from '@/api/client'
import { useStock } from './useStock'

/** The farm's containers and the ways to change them. What is counted in them follows. */
export function useMeasures() {
  const queries = useQueryClient()
  const { measures, addMeasure, error, retry } = useStock()
  const refresh = () =>
    Promise.all(['measures', 'lots'].map((key) => queries.invalidateQueries({ queryKey: [key] })))
  const path = (id: number) => ({ params: { path: { id } } })

  const change = useMutation({
    mutationFn: ({ id, version, measure }: { id: number; version: number; measure: MeasureFields }) =>
      answered(api.PUT('/api/measures/{id}', { ...path(id), body: { version, measure } })),
    onSettled: refresh,
  })
  const remove = useMutation({
    mutationFn: (id: number) => answered(api.DELETE('/api/measures/{id}', path(id))),
    onSettled: refresh,
  })
  const restore = useMutation({
    mutationFn: (id: number) => answered(api.POST('/api/measures/{id}/restore', path(id))),
    onSettled: refresh,
  })

  return { measures, error, retry, add: addMeasure, change, remove, restore }
}
