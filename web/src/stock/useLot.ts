import { useMutation, useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { v7 } from 'uuid'
import {
  answered,
  api,
  type FieldTest,
  type Lot,
  type LotAct,
  type LotEvent,
  type Readings,
} from '@/api/client'
import { key } from '@/api/keys'
import { useOutbox } from '@/api/outbox/useOutbox'
import { useSay } from '@/words/useSay'
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

  const { does } = useOutbox()
  const say = useSay()
  const { t } = say
  const named = () => (lot.value ? say.nameOf(lot.value.material, lot.value.label) : '')
  const counted = (amount: number) =>
    lot.value ? `${say.amount(amount, lot.value.unit, lot.value.measure_id)} ${named()}` : ''
  const tested = ({ readings }: { readings: Readings }) => `${t(`test.${readings.kind}`)}, ${named()}`
  /** A test is of its lot: what is done to it waits behind the lot itself. */
  const of = computed(() => ({ of: id.value, path: { id: id.value } }))
  const ofTest = (test: string) => ({ of: id.value, path: { id: test, lot: id.value } })

  const happened = useMutation({
    mutationFn: (body: { kind: LotAct; amount: number; note?: string | null }) =>
      does<Lot>({
        kind: 'lot-happened',
        ...of.value,
        body: { ...body, entry: v7() },
        says: `${t(`history.do.${body.kind}`)}: ${counted(body.amount)}`,
      }),
  })
  const undoEvent = useMutation({
    mutationFn: ({ id: event, delta }: LotEvent) =>
      does<Lot>({
        kind: 'lot-unhappened',
        of: id.value,
        path: { id: event },
        shows: delta,
        says: counted(Math.abs(delta)),
      }),
  })
  const addTest = useMutation({
    mutationFn: (body: { made_on: string; readings: Readings }) =>
      does<FieldTest>({ kind: 'test-add', ...of.value, query: { id: v7() }, body, says: tested(body) }),
  })
  const changeTest = useMutation({
    mutationFn: ({ test, to }: { test: FieldTest; to: { made_on: string; readings: Readings } }) =>
      does<FieldTest>({
        kind: 'test-change',
        ...ofTest(test.id),
        body: { version: test.version, test: to },
        base: { made_on: test.made_on, readings: test.readings },
        says: tested(to),
      }),
  })
  const removeTest = useMutation({
    mutationFn: (test: FieldTest) => does({ kind: 'test-remove', ...ofTest(test.id), says: tested(test) }),
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
