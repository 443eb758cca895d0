import type { QueryClient } from '@tanstack/vue-query'
import type { Start } from './client'
import { key } from './keys'

declare global {
  interface Window {
    /** What the page itself asked for, before any script was here. */
    zymarchStart?: Promise<Response>
  }
}

/**
 * Puts the first answers where the page looks for them. Without them every part asks for its own,
 * and says so if the farm cannot be reached.
 */
export async function begun(queries: QueryClient) {
  const start = await window.zymarchStart
    ?.then((response) => (response.ok ? (response.json() as Promise<Start>) : null))
    .catch(() => null)
  if (!start) return
  const { about, limits, sites, names, open } = start
  queries.setQueryData(key('about'), about)
  queries.setQueryData(key('limits'), limits)
  queries.setQueryData(key('sites'), sites)
  queries.setQueryData(key('names'), names)
  if (!open) return
  queries.setQueryData(key('measures', open.site.id), open.measures)
  queries.setQueryData(key('lots', open.site.id), open.lots)
}
