import { useMutation, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { v7 } from 'uuid'
import { answered, api, type Lot, type LotFields } from '@/api/client'
import { key } from '@/api/keys'
import { useOutbox } from '@/api/outbox/useOutbox'
import { useMeasureList, useSite } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { withWaiting } from './withWaiting'

/** The lots and measures of the farm that is open. */
export function useStock() {
  const { site } = useSite()
  const { measures, error: measuresError, refetch } = useMeasureList()
  const siteId = computed(() => site.value?.id ?? '')
  const outbox = useOutbox()

  const lots = useQuery({
    queryKey: key('lots', siteId),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/sites/{site}/lots', { params: { path: { site: siteId.value } }, signal })),
    enabled: computed(() => siteId.value !== ''),
  })

  return {
    lots: computed(() => lots.data.value && withWaiting(lots.data.value, outbox.comes)),
    measures,
    error: computed(() => lots.error.value ?? measuresError.value),
    retry: () => Promise.all([lots.refetch(), refetch()]),
  }
}

/** The ways to change the lots of the farm that is open. */
export function useLotChanges() {
  const { site } = useSite()
  const { does } = useOutbox()
  const say = useSay()
  const at = (id: string) => ({ id, site: site.value?.id ?? '' })
  const named = ({ material, label }: Pick<LotFields, 'material' | 'label'>) => say.nameOf(material, label)
  const said = (lot: LotFields) => `${say.amount(lot.amount, lot.unit, lot.measure_id)} ${named(lot)}`

  /** The id is given here, so that the lot is known by it before the farm has it. */
  const add = useMutation({
    mutationFn: async (lot: LotFields) => {
      const id = v7()
      const body = { ...lot }
      await does({ kind: 'lot-add', of: id, path: at(id), query: { id }, body, says: said(lot) })
      return { id }
    },
  })
  const change = useMutation({
    mutationFn: ({ lot: before, to }: { lot: Lot; to: LotFields }) =>
      does<Lot>({
        kind: 'lot-change',
        of: before.id,
        path: at(before.id),
        body: { version: before.version, lot: to },
        base: { ...fieldsOf(before) },
        says: said(to),
      }),
  })
  const remove = useMutation({
    mutationFn: (lot: Pick<Lot, 'id'> & Partial<Lot>) => {
      const says = lot.material ? named({ material: lot.material, label: lot.label }) : say.t('nav.stock')
      return does({ kind: 'lot-remove', of: lot.id, path: at(lot.id), says })
    },
  })
  return { add, change, remove }
}

/** What a lot is, without what the server reckons of it. */
export function fieldsOf(lot: Lot): LotFields {
  const { material, label, amount, unit, measure_id, own, gathered_on, price } = lot
  return { material, label, amount, unit, measure_id, own, gathered_on, price }
}
