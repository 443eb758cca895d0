// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises } from '@vue/test-utils'
import { asked, refusal, serve, unserve } from '@/testing/served'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { answered, api } from '@/api/client'
import { mounted } from '@/testing/mounted'
import TroubleBar from './TroubleBar.vue'

enableAutoUnmount(afterEach)
beforeEach(() => {
  unserve()
  vi.useFakeTimers({ shouldAdvanceTime: true })
})
afterEach(() => vi.useRealTimers())

const ask = async (signal?: AbortSignal) => {
  await answered(api.GET('/api/methods', { signal })).catch(() => undefined)
  await flushPromises()
}

test('a file that is gone is said in its own words, and asked for until it is back', async () => {
  const bar = mounted(TroubleBar)
  serve('GET /api/methods', refusal(503, { code: 'file-gone' }))
  serve('GET /api/sites', refusal(503, { code: 'file-gone' }))
  await ask()
  expect(bar.text()).toMatch(/^Refused/)
  expect(bar.get('[role=alert]').text()).toMatch(/from before/)
  await vi.advanceTimersByTimeAsync(3100)
  expect(asked('GET', '/api/sites').length).toBe(1)
  serve('GET /api/sites', { body: [] })
  await vi.advanceTimersByTimeAsync(3100)
  expect(bar.text()).toBe('')
  await vi.advanceTimersByTimeAsync(9000)
  expect(asked('GET', '/api/sites').length).toBe(2)
})

test('silence is said, what was given up on is not', async () => {
  const bar = mounted(TroubleBar)
  serve('GET /api/methods', () => {
    throw new DOMException('given up', 'AbortError')
  })
  await ask()
  expect(bar.text()).toBe('')
  serve('GET /api/methods', 'silence')
  await ask()
  expect(bar.text()).toMatch(/does not answer/)
  serve('GET /api/methods', { body: [] })
  await ask()
  expect(bar.text()).toBe('')
})

test('a refusal of what was asked is no trouble', async () => {
  const bar = mounted(TroubleBar)
  serve('GET /api/methods', refusal(422, { code: 'negative' }))
  await ask()
  expect(bar.text()).toBe('')
})
