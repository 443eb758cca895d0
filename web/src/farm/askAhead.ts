import type { QueryClient } from '@tanstack/vue-query'
import { api, type Site } from '@/api/client'
import { key } from '@/api/keys'

/** So many batches and heaps are made ready for the field: those of this season, not of all years. */
const MOST = 20

/**
 * Asks the farm for what is needed in the field, so that this device has it where there is no signal:
 * what every page leans on, the stock of each site, its heaps that are being built, and each batch as the
 * heap it would be begun as.
 */
export async function askAhead(queries: QueryClient) {
  if (!navigator.serviceWorker?.controller) return
  // What the first page asked for before anything stood between it and the farm.
  await Promise.all([
    api.GET('/api/start'),
    api.GET('/api/about'),
    api.GET('/api/me'),
    api.GET('/api/limits'),
    api.GET('/api/sites'),
    api.GET('/api/materials'),
    api.GET('/api/materials/names'),
    api.GET('/api/methods'),
    api.GET('/api/starters'),
  ])
  for (const { id: site } of queries.getQueryData<Site[]>(key('sites')) ?? []) {
    const path = { params: { path: { site } } }
    const [, , heaps, batches] = await Promise.all([
      api.GET('/api/sites/{site}/lots', path),
      api.GET('/api/sites/{site}/measures', path),
      api.GET('/api/sites/{site}/heaps', path),
      api.GET('/api/sites/{site}/batches', path),
      api.GET('/api/sites/{site}/sorted-out', path),
    ])
    const unfinished = (heaps.data ?? []).filter(({ laid, planned }) => laid < planned)
    for (const { id } of unfinished.slice(0, MOST))
      await api.GET('/api/heaps/{id}', { params: { path: { id } } })
    const built = (heaps.data ?? []).filter(({ laid, planned }) => laid > 0 && laid === planned)
    await api.GET('/api/sites/{site}/strips', path)
    await api.GET('/api/sites/{id}/today', { params: { path: { id: site } } })
    for (const { id } of built.slice(0, MOST)) {
      const of = { path: { id } }
      await api.GET('/api/heaps/{id}/log', { params: of })
      await api.GET('/api/heaps/{id}/judgement', { params: of })
      await api.GET('/api/heaps/{id}/trace', { params: { ...of, query: { columns: 400 } } })
    }
    for (const { id } of (batches.data ?? []).slice(0, MOST))
      await api.GET('/api/batches/{id}/heap', { params: { path: { id } } })
  }
}
