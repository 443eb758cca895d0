// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises } from '@vue/test-utils'
import { asked, refusal, serve, unserve } from '@/testing/served'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { defineComponent, h, ref } from 'vue'
import type { Heap } from '@/api/client'
import { heap, serveFarm } from '@/testing/samples'
import { mounted } from '@/testing/mounted'
import { kept } from './outbox'
import { useBuild } from './useBuild'

enableAutoUnmount(afterEach)
beforeEach(() => {
  unserve()
  serveFarm()
  localStorage.clear()
  vi.useFakeTimers({ shouldAdvanceTime: true })
})
afterEach(() => vi.useRealTimers())

async function building(stands = heap()) {
  serve('GET /api/heaps/heap-1', { body: stands })
  let build!: ReturnType<typeof useBuild>
  const part = mounted(
    defineComponent(() => {
      build = useBuild(ref('heap-1'))
      return () => h('div')
    }),
  )
  await flushPromises()
  const lay = async (step: number) => {
    build.lay(step, [{ item: 0, amount: 1 }], 12)
    await flushPromises()
    // Past the time in which a second tap is not meant.
    await vi.advanceTimersByTimeAsync(650)
  }
  return { build, lay, part }
}

const LAY = '/api/heaps/heap-1/lay'
const laidBy = (body: unknown) => (body as { step: number }).step

test('what is laid without signal waits in order, and goes once each when there is signal', async () => {
  serve(`POST ${LAY}`, 'silence')
  const { build, lay } = await building()
  await lay(0)
  await lay(1)
  await lay(2)
  expect(build.heap.value?.laid).toBe(3)
  expect([build.isCutOff.value, build.waiting.value]).toEqual([true, 3])
  expect(kept('heap-1').map(({ laid }) => laid?.step)).toEqual([0, 1, 2])

  const before = asked('POST', LAY).length
  let laid = 0
  serve(`POST ${LAY}`, () => ({ body: heap(3, ++laid) }))
  window.dispatchEvent(new Event('online'))
  await flushPromises()
  await vi.advanceTimersByTimeAsync(10)
  expect(
    asked('POST', LAY)
      .slice(before)
      .map(({ body }) => laidBy(body)),
  ).toEqual([0, 1, 2])
  expect([build.isCutOff.value, build.waiting.value]).toEqual([false, 0])
  expect(kept('heap-1')).toEqual([])
})

test('each act says after which entry it was done, the one before it that waits', async () => {
  serve(`POST ${LAY}`, 'silence')
  const { lay } = await building()
  await lay(0)
  await lay(1)
  const [first, second] = kept('heap-1')
  expect(first!.after).toBe('entry-0')
  expect(second!.after).toBe(first!.entry)
})

test('a server in trouble is asked again; the act stays the same, so that it is done once', async () => {
  serve(`POST ${LAY}`, refusal(503, { reason: 'the data file is busy' }))
  const { build, lay } = await building()
  await lay(0)
  expect(build.waiting.value).toBe(1)
  serve(`POST ${LAY}`, { body: heap(3, 1) })
  await vi.advanceTimersByTimeAsync(3100)
  const entries = asked('POST', LAY).map(({ body }) => (body as { entry: string }).entry)
  expect(entries.length).toBeGreaterThan(1)
  expect(new Set(entries).size).toBe(1)
  expect(build.waiting.value).toBe(0)
})

test('what is refused is let go with all that was done on top of it, and the heap is read anew', async () => {
  serve(`POST ${LAY}`, 'silence')
  const { build, lay } = await building()
  await lay(0)
  await lay(1)
  serve(`POST ${LAY}`, refusal(409, { code: 'stale' }))
  serve('GET /api/heaps/heap-1', { body: heap(3, 2, { head: 'theirs' }) })
  window.dispatchEvent(new Event('online'))
  await flushPromises()
  expect(build.waiting.value).toBe(0)
  expect(build.heap.value?.head).toBe('theirs')
  expect(asked('POST', LAY).filter(({ body }) => laidBy(body) === 1)).toEqual([])
})

test('a second tap of a wet thumb lays nothing', async () => {
  serve(`POST ${LAY}`, () => ({ body: heap(3, 1) }))
  const { build } = await building()
  build.lay(0, [{ item: 0, amount: 1 }], 12)
  build.lay(1, [{ item: 0, amount: 1 }], 12)
  await flushPromises()
  expect(asked('POST', LAY).map(({ body }) => laidBy(body))).toEqual([0])
})

test('what waited when the page was left is sent when it is opened again', async () => {
  serve(`POST ${LAY}`, 'silence')
  const { lay, part } = await building()
  await lay(0)
  part.unmount()
  serve(`POST ${LAY}`, { body: heap(3, 1) })
  const { build } = await building()
  await flushPromises()
  expect(build.heap.value?.laid).toBe(1)
  expect(kept('heap-1')).toEqual([])
})

test('undo takes back what waits and what the server has, each by its own act', async () => {
  serve('POST /api/heaps/heap-1/undo', 'silence')
  const { build } = await building(heap(3, 1))
  expect((build.heap.value as Heap).can_undo).toBe(true)
  build.undo()
  await flushPromises()
  expect(kept('heap-1').map(({ what, after }) => [what, after])).toEqual([['undo', 'entry-1']])
  serve('POST /api/heaps/heap-1/undo', { body: heap(3, 0, { head: 'undone' }) })
  await vi.advanceTimersByTimeAsync(3100)
  expect(build.heap.value?.laid).toBe(0)
})

test('the rest is planned anew by the server alone, and not while anything waits for it', async () => {
  serve(`POST ${LAY}`, 'silence')
  serve('POST /api/heaps/heap-1/anew', { body: heap(4, 1) })
  const { build, lay } = await building()
  await lay(0)
  build.anew('size')
  await flushPromises()
  expect(asked('POST', '/api/heaps/heap-1/anew')).toEqual([])
})
