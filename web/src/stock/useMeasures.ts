import { useMutation } from '@tanstack/vue-query'
import { v7 } from 'uuid'
import { type Measure, type MeasureFields } from '@/api/client'
import { useOutbox } from '@/api/outbox/useOutbox'
import { useMeasureList, useSite } from '@/farm/useFarm'

/** The farm's containers and the ways to change them. What is counted in them follows. */
export function useMeasures() {
  const { site } = useSite()
  const { measures, error, refetch: retry } = useMeasureList()
  const { does } = useOutbox()
  const at = (id: string) => ({ id, site: site.value?.id ?? '' })

  const add = useMutation({
    mutationFn: async (measure: MeasureFields) => {
      const id = v7()
      const body = { ...measure }
      await does({ kind: 'measure-add', of: id, path: at(id), query: { id }, body, says: measure.name })
      return { id }
    },
  })
  const change = useMutation({
    mutationFn: ({ measure, to }: { measure: Measure; to: MeasureFields }) => {
      const base = Object.fromEntries(Object.keys(to).map((name) => [name, measure[name as keyof Measure]]))
      const body = { version: measure.version, measure: to }
      return does({ kind: 'measure-change', of: measure.id, path: at(measure.id), body, base, says: to.name })
    },
  })
  const remove = useMutation({
    mutationFn: ({ id, name }: Measure) => does({ kind: 'measure-remove', of: id, path: at(id), says: name }),
  })

  return { measures, error, retry, add, change, remove }
}
