import { useQueryClient } from '@tanstack/vue-query'
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { answered, api } from '@/api/client'
import { changed, type Subject } from '@/api/keys'

/** What can be removed and brought back, and what of the farm leans on it. */
const RESTORES = {
  batches: ['batch', (path: Id) => answered(api.POST('/api/batches/{id}/restore', path))],
  heaps: ['heap', (path: Id) => answered(api.POST('/api/heaps/{id}/restore', path))],
  lots: ['lot', (path: Id) => answered(api.POST('/api/lots/{id}/restore', path))],
  materials: ['material', (path: Id) => answered(api.POST('/api/materials/{id}/restore', path))],
  measures: ['measure', (path: Id) => answered(api.POST('/api/measures/{id}/restore', path))],
  methods: ['method', (path: Id) => answered(api.POST('/api/methods/{id}/restore', path))],
  people: ['person', (path: Id) => answered(api.POST('/api/people/{id}/restore', path))],
  sites: ['site', (path: Id) => answered(api.POST('/api/sites/{id}/restore', path))],
  'sorted-out': ['sorted-out', (path: Id) => answered(api.POST('/api/sorted-out/{id}/restore', path))],
  tests: ['lot', (path: Id) => answered(api.POST('/api/tests/{id}/restore', path))],
} as const satisfies Record<string, readonly [Subject, (path: Id) => Promise<unknown>]>

type Id = { params: { path: { id: string } } }
export type Removable = keyof typeof RESTORES

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
    const [subject, call] = RESTORES[what]
    await call({ params: { path: { id } } })
    removed.value = without({ what, id })
    await changed(queries, subject)
  }

  return { removed, note, restore }
})

function kept(): Removed[] {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(KEPT_AS) ?? '[]')
    return Array.isArray(found) ? (found as Removed[]).filter(({ what, id }) => what in RESTORES && id) : []
  } catch {
    return []
  }
}
