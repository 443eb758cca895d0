import type { App } from 'vue'

let app: App | null = null
let ready: Promise<void> | null = null

/** Tells which app the larger controls are for. */
export const controlsOf = (one: App) => void (app = one)

/** Fetches the larger controls, which the first page has none of, before what has one is drawn. */
export function controls(): Promise<void> {
  const one = app
  if (!one) return Promise.resolve()
  ready ??= import('@/theme/controls').then(({ install }) => install(one))
  // A connection that broke is tried again at the next page.
  ready.catch(() => (ready = null))
  return ready
}
