import { useMutation } from '@tanstack/vue-query'
import { answered, api, type MeasureFields } from '@/api/client'
import { useChanged } from '@/api/keys'
import { useMeasureList, useSite } from '@/farm/useFarm'

/** The farm's containers and the ways to change them. What is counted in them follows. */
export function useMeasures() {
  const { site } = useSite()
  const { measures, error, refetch: retry } = useMeasureList()
  const refresh = useChanged('measure')
  const path = (id: string) => ({ params: { path: { id } } })

  const add = useMutation({
    mutationFn: (measure: MeasureFields) =>
      answered(
        api.POST('/api/sites/{site}/measures', {
          params: { path: { site: site.value?.id ?? '' } },
          body: measure,
        }),
      ),
    onSettled: refresh,
  })
  const change = useMutation({
    mutationFn: ({ id, version, measure }: { id: string; version: number; measure: MeasureFields }) =>
      answered(api.PUT('/api/measures/{id}', { ...path(id), body: { version, measure } })),
    onSettled: refresh,
  })
  const remove = useMutation({
    mutationFn: (id: string) => answered(api.DELETE('/api/measures/{id}', path(id))),
    onSettled: refresh,
  })

  return { measures, error, retry, add, change, remove }
}
