import type { QueryClient } from '@tanstack/vue-query'
import type { Start } from './client'
import { setSignedOut } from './door'
import { key } from './keys'
import { cutOff } from './trouble'
import { FROM_BEFORE } from '@/offline/names'

declare global {
  interface Window {
    /** What the page itself asked for, before any script was here. */
    zymarchStart?: Promise<Response>
  }
}

/** For longer than this nobody looks at an empty frame: each part then asks for itself [ms]. */
const PATIENCE_MS = 6000

/**
 * Puts the first answers where the page looks for them. Without them every part asks for its own,
 * and says so if the farm cannot be reached.
 */
export async function begun(queries: QueryClient) {
  const asked = window.zymarchStart
    ?.then((response) => {
      if (response.status === 401) setSignedOut(true)
      if (response.headers.has(FROM_BEFORE)) cutOff()
      return response.ok ? (response.json() as Promise<Start>) : null
    })
    .catch(() => null)
  const late = new Promise<null>((done) => setTimeout(() => done(null), PATIENCE_MS))
  const start = await Promise.race([asked, late])
  if (!start) return
  const { about, me, limits, sites, names, open } = start
  queries.setQueryData(key('about'), about)
  queries.setQueryData(key('me'), me)
  queries.setQueryData(key('limits'), limits)
  queries.setQueryData(key('sites'), sites)
  queries.setQueryData(key('names'), names)
  if (!open) return
  queries.setQueryData(key('measures', open.site.id), open.measures)
  queries.setQueryData(key('lots', open.site.id), open.lots)
}
