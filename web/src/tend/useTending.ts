import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { v7 } from 'uuid'
import { computed, type Ref } from 'vue'
import { answered, api, type TendedHeap, type Tended } from '@/api/client'
import { key } from '@/api/keys'
import type { Act } from '@/api/outbox/act'
import { useOutbox } from '@/api/outbox/useOutbox'
import { useAbout } from '@/farm/useFarm'
import { useSlip } from '@/kit/useSlip'
import { useAttempt } from '@/kit/useAttempt'
import type { PhotoSent } from './photo'
import { useLogWords } from './useLogWords'
import { nowOf } from './when'

/** Something to be written down. */
export interface Entry {
  what: Tended
  note?: string | null
  /** When it was, RFC 3339, if not just now. */
  at?: string | null
  photo?: PhotoSent | null
  /** The entry that it puts right. */
  instead_of?: string | null
}

/** The ways to write down what is read at a heap, seen and done: kept here first, sent when it can be. */
export function useTend() {
  const outbox = useOutbox()
  const words = useLogWords()
  const { attempt } = useAttempt()
  const { about } = useAbout()
  const slip = useSlip()
  const { t } = words

  /** Writes something down; whether it is kept. */
  async function tend(heap: { id: string; name: string }, { what, note, at, photo, instead_of }: Entry) {
    const entry = v7()
    const text = words.said(what, note)
    const kept = await attempt(async () => {
      await outbox.does<TendedHeap>({
        kind: 'heap-tend',
        of: heap.id,
        path: { id: heap.id },
        body: { entry, what, note: note || null, at: at ?? nowOf(about.value), photo, instead_of },
        says: `${heap.name}, ${text}`,
      })
    })
    if (kept)
      slip.said({
        text: t(instead_of ? 'tend.changed' : 'tend.written', { what: text }),
        undoLabel: t('app.undo'),
        undo: () => void takeBack(heap, entry, text),
      })
    return kept
  }

  /** Takes an entry back: what has not left this device was never written. */
  async function takeBack(heap: { id: string; name: string }, entry: string, text: string) {
    const waits = outbox.waiting.find((act) => act.kind === 'heap-tend' && act.body?.entry === entry)
    if (waits && outbox.isOnlyHere(waits.id)) {
      await outbox.letGo(waits.id)
      return slip.said({ text: t('tend.takenBack', { what: text }) })
    }
    const path = { id: heap.id, entry }
    const says = `${heap.name}, ${text}`
    const done = await attempt(() =>
      outbox.does<TendedHeap>({ kind: 'heap-take-back', of: heap.id, path, body: { entry: v7() }, says }),
    )
    if (done)
      slip.said({
        text: t('tend.takenBack', { what: text }),
        undoLabel: t('app.undo'),
        undo: () =>
          void attempt(() =>
            outbox.does<TendedHeap>({
              kind: 'heap-bring-back',
              of: heap.id,
              path,
              body: { entry: v7() },
              says,
            }),
          ),
      })
  }

  return { tend, takeBack, words }
}

/** One heap from plan to now, with what was written here and is not with the farm yet. */
export function useTending(id: Ref<string>) {
  const outbox = useOutbox()
  const {
    data: heap,
    error,
    refetch: retry,
  } = useQuery({
    queryKey: key('tended', id),
    queryFn: ({ signal }) =>
      answered(api.GET('/api/heaps/{id}/log', { params: { path: { id: id.value } }, signal })),
    enabled: computed(() => id.value !== ''),
    staleTime: 0,
    placeholderData: keepPreviousData,
  })
  const waiting = computed(() => outbox.to(id.value))
  const gone = computed(
    () =>
      new Set(waiting.value.filter(({ kind }) => kind === 'heap-take-back').map(({ path }) => path.entry)),
  )
  const log = computed(() => (heap.value?.log ?? []).filter(({ id: entry }) => !gone.value.has(entry)))
  /** What was written here, last on top. */
  const pending = computed(() =>
    waiting.value
      .filter(({ kind }) => kind === 'heap-tend')
      .filter((act) => heap.value?.log.every(({ id: entry }) => entry !== act.body?.entry) ?? true)
      .map((act: Act) => ({ act, what: act.body?.what as Tended, note: act.body?.note as string | null }))
      .reverse(),
  )
  return { heap, error, retry, log, pending }
}
