import { QueryClient } from '@tanstack/vue-query'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { key } from './keys'
import { begun } from './start'

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('window', {})
})
afterEach(() => {
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

const start = { about: { today: '2026-03-14' }, limits: {}, sites: [{ id: 'a' }], names: [] }
const told = (body: unknown, status = 200) => Promise.resolve(new Response(JSON.stringify(body), { status }))

test('what the page asked for is there before any part asks', async () => {
  const queries = new QueryClient()
  const open = { site: { id: 'a' }, measures: [{ id: 'barrow' }], lots: [{ id: 'straw' }] }
  window.zymarchStart = told({ ...start, open })
  await begun(queries)
  expect(queries.getQueryData(key('sites'))).toEqual(start.sites)
  expect(queries.getQueryData(key('lots', 'a'))).toEqual(open.lots)
})

test('refused, cut off, late or never asked, the page goes on without', async () => {
  const queries = new QueryClient()
  const answers = [() => told({}, 503), () => Promise.reject(new TypeError('cut off')), () => undefined]
  for (const answer of answers) {
    window.zymarchStart = answer()
    const goes = begun(queries)
    await vi.runAllTimersAsync()
    await goes
  }
  window.zymarchStart = new Promise(() => undefined)
  const goes = begun(queries)
  await vi.advanceTimersByTimeAsync(6001)
  await goes
  expect(queries.getQueryData(key('sites'))).toBeUndefined()
})
