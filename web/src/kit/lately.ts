import { useQueryClient } from '@tanstack/vue-query'
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { answered, api } from '@/api/client'
import { changed, type Subject } from '@/api/keys'
import type { ActKind } from '@/api/outbox/kinds'
import { useOutbox } from '@/api/outbox/useOutbox'

/** What can be removed and brought back, and what of the farm leans on it. */
const RESTORES = {
  batches: ['batch', (path: Id) => answered(api.POST('/api/batches/{id}/restore', path))],
  materials: ['material', (path: Id) => answered(api.POST('/api/materials/{id}/restore', path))],
  methods: ['method', (path: Id) => answered(api.POST('/api/methods/{id}/restore', path))],
  people: ['person', (path: Id) => answered(api.POST('/api/people/{id}/restore', path))],
  grounds: ['ground', (path: Id) => answered(api.POST('/api/grounds/{id}/restore', path))],
  sites: ['site', (path: Id) => answered(api.POST('/api/sites/{id}/restore', path))],
} as const satisfies Record<string, readonly [Subject, (path: Id) => Promise<unknown>]>

/** What is removed and brought back in the field, where there may be no signal. */
const IN_THE_FIELD = {
  heaps: ['heap-remove', 'heap-restore'],
  lots: ['lot-remove', 'lot-restore'],
  measures: ['measure-remove', 'measure-restore'],
  'sorted-out': ['sorted-out-remove', 'sorted-out-restore'],
  tests: ['test-remove', 'test-restore'],
} as const satisfies Record<string, readonly [ActKind, ActKind]>

type Id = { params: { path: { id: string } } }
export type Removable = keyof typeof RESTORES | keyof typeof IN_THE_FIELD

const isInTheField = (what: Removable): what is keyof typeof IN_THE_FIELD => what in IN_THE_FIELD

/** Something removed from this browser, told so that it can be brought back after the page was closed. */
export interface Removed {
  what: Removable
  id: string
  text: string
  /** RFC 3339. */
  at: string
}

const KEPT_AS = 'zymarch-lately'
const MOST = 20

/** What was removed lately: its undo outlives the slip that offered it first, and the page. */
export const useLately = defineStore('lately', () => {
  const outbox = useOutbox()
  const removed = ref<Removed[]>(kept())
  const queries = useQueryClient()

  watch(removed, (now) => {
    try {
      localStorage.setItem(KEPT_AS, JSON.stringify(now))
    } catch {
      // Nothing can be kept here; the list holds until the page is closed.
    }
  })

  function note(one: Omit<Removed, 'at'>) {
    removed.value = [{ ...one, at: new Date().toISOString() }, ...without(one)].slice(0, MOST)
  }

  const without = ({ what, id }: Pick<Removed, 'what' | 'id'>) =>
    removed.value.filter((other) => other.what !== what || other.id !== id)

  /** Brings it back; what the server refuses is thrown. */
  async function restore({ what, id }: Pick<Removed, 'what' | 'id'>) {
    if (isInTheField(what)) await inTheField(what, id)
    else {
      const [subject, call] = RESTORES[what]
      await call({ params: { path: { id } } })
      await changed(queries, subject)
    }
    removed.value = without({ what, id })
  }

  /** What was not even told the farm yet is let go; all else is brought back when there is a signal. */
  async function inTheField(what: keyof typeof IN_THE_FIELD, id: string) {
    const [gone, back] = IN_THE_FIELD[what]
    const waits = outbox.waiting.find(({ kind, path }) => kind === gone && path.id === id)
    if (waits && outbox.isOnlyHere(waits.id)) return outbox.letGo(waits.id)
    const says = removed.value.find((one) => one.what === what && one.id === id)?.text ?? what
    await outbox.does({ kind: back, of: id, path: { id }, says })
  }

  return { removed, note, restore }
})

function kept(): Removed[] {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(KEPT_AS) ?? '[]')
    return Array.isArray(found)
      ? (found as Removed[]).filter(({ what, id }) => (what in RESTORES || what in IN_THE_FIELD) && id)
      : []
  } catch {
    return []
  }
}
