// @vitest-environment happy-dom
import { enableAutoUnmount, flushPromises } from '@vue/test-utils'
import { asked, refusal, serve, unserve } from '@/testing/served'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { defineComponent, h, ref } from 'vue'
import type { BuildAnew, Heap } from '@/api/client'
import { useOutbox } from '@/api/outbox/useOutbox'
import { heap, serveFarm, sums } from '@/testing/samples'
import { mounted } from '@/testing/mounted'
import { useBuild } from './useBuild'

vi.mock('vue-router', () => ({ useRouter: () => ({ replace: vi.fn() }) }))

enableAutoUnmount(afterEach)
beforeEach(() => {
  unserve()
  serveFarm()
  localStorage.clear()
  vi.useFakeTimers({ shouldAdvanceTime: true })
})
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
})
/** A phone that knows itself that it has no signal: what it holds has surely not left it. */
const noSignal = () => vi.spyOn(navigator, 'onLine', 'get').mockReturnValue(false)

async function building(stands = heap()) {
  serve('GET /api/heaps/heap-1', { body: stands })
  let build!: ReturnType<typeof useBuild>
  let outbox!: ReturnType<typeof useOutbox>
  mounted(
    defineComponent(() => {
      build = useBuild(ref('heap-1'))
      outbox = useOutbox()
      return () => h('div')
    }),
  )
  await flushPromises()
  const lay = async (step: number) => {
    void build.lay(step, [{ item: 0, amount: 1 }], 12)
    await flushPromises()
    // Past the time in which a second tap is not meant.
    await vi.advanceTimersByTimeAsync(650)
  }
  return { build, outbox, lay }
}

const LAY = '/api/heaps/heap-1/lay'
const laidBy = (body: unknown) => (body as { step: number }).step

test('what is laid without signal waits in order, and goes once each when there is signal', async () => {
  serve(`POST ${LAY}`, 'silence')
  const { build, outbox, lay } = await building()
  await lay(0)
  await lay(1)
  await lay(2)
  expect(build.heap.value?.laid).toBe(3)
  expect([build.isCutOff.value, outbox.waiting.length]).toEqual([true, 3])

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
  expect([build.isCutOff.value, outbox.acts.length]).toEqual([false, 0])
})

test('a server in trouble is asked again; the act stays the same, so that it is done once', async () => {
  serve(`POST ${LAY}`, refusal(503, { reason: 'the data file is busy' }))
  const { outbox, lay } = await building()
  await lay(0)
  expect(outbox.waiting).toHaveLength(1)
  serve(`POST ${LAY}`, { body: heap(3, 1) })
  await vi.advanceTimersByTimeAsync(3100)
  const entries = asked('POST', LAY).map(({ body }) => (body as { entry: string }).entry)
  expect(entries.length).toBeGreaterThan(1)
  expect(new Set(entries).size).toBe(1)
  expect(outbox.acts).toEqual([])
})

test('what somebody else did meanwhile waits for a word, and all that was done on top of it behind it', async () => {
  serve(`POST ${LAY}`, 'silence')
  const { outbox, lay } = await building()
  await lay(0)
  await lay(1)
  serve(`POST ${LAY}`, refusal(409, { code: 'stale' }))
  window.dispatchEvent(new Event('online'))
  await flushPromises()
  await vi.advanceTimersByTimeAsync(10)
  expect(outbox.waiting.map(({ trouble }) => trouble?.clashes)).toEqual([true, undefined])
  expect(asked('POST', LAY).filter(({ body }) => laidBy(body) === 1)).toEqual([])
  // Let go, it makes way for the one behind it.
  serve(`POST ${LAY}`, { body: heap(3, 2) })
  await outbox.letGo(outbox.waiting[0]!.id)
  await vi.advanceTimersByTimeAsync(10)
  expect(
    asked('POST', LAY)
      .map(({ body }) => laidBy(body))
      .at(-1),
  ).toBe(1)
  expect(outbox.acts).toEqual([])
})

test('a second tap of a wet thumb lays nothing', async () => {
  serve(`POST ${LAY}`, () => ({ body: heap(3, 1) }))
  const { build } = await building()
  void build.lay(0, [{ item: 0, amount: 1 }], 12)
  void build.lay(1, [{ item: 0, amount: 1 }], 12)
  await flushPromises()
  await vi.advanceTimersByTimeAsync(10)
  expect(asked('POST', LAY).map(({ body }) => laidBy(body))).toEqual([0])
})

test('undo of what the farm has is an act of its own; of what still waits it takes that back', async () => {
  const UNDO = '/api/heaps/heap-1/undo'
  serve(`POST ${LAY}`, 'silence')
  serve(`POST ${UNDO}`, 'silence')
  const { build, outbox, lay } = await building(heap(3, 1))
  noSignal()
  expect((build.heap.value as Heap).can_undo).toBe(true)
  await lay(1)
  void build.undo()
  await vi.advanceTimersByTimeAsync(650)
  expect([outbox.acts, build.heap.value?.laid]).toEqual([[], 1])
  expect(asked('POST', UNDO)).toEqual([])
  void build.undo()
  await flushPromises()
  serve(`POST ${UNDO}`, { body: heap(3, 0, { head: 'undone' }) })
  await vi.advanceTimersByTimeAsync(3100)
  expect(build.heap.value?.laid).toBe(0)
  expect(asked('POST', UNDO)[0]?.body).toMatchObject({ after: 'entry-1' })
})

test('the rest is planned anew without signal as the farm offered it, waits like all else, and is taken back', async () => {
  serve('POST /api/heaps/heap-1/anew', 'silence')
  const off = heap(3, 1)
  const steps = [{ ...off.build.steps[1]!, portions: [{ item: 0, amount: 7 }] }]
  off.build.anew = [
    { way: 'size', steps, at_end: sums, size: 'heats', height_cm: 20 } as unknown as BuildAnew,
  ]
  noSignal()
  const { build, outbox } = await building(off)
  void build.anew('size')
  await flushPromises()
  await vi.advanceTimersByTimeAsync(650)
  expect(build.heap.value?.build.steps.at(-1)?.portions).toEqual([{ item: 0, amount: 7 }])
  expect(outbox.waiting.map(({ kind, body }) => [kind, body?.way, body?.after])).toEqual([
    ['heap-anew', 'size', 'entry-1'],
  ])
  void build.undo()
  await flushPromises()
  expect([outbox.acts, build.heap.value?.build.steps.length]).toEqual([[], 3])
})

test('what may have reached the farm is taken back there, and not forgotten here', async () => {
  serve(`POST ${LAY}`, 'silence')
  const { build, outbox, lay } = await building(heap(3, 1))
  await lay(1)
  void build.undo()
  await flushPromises()
  expect(build.heap.value?.laid).toBe(1)
  expect(outbox.acts.map(({ kind }) => kind)).toEqual(['heap-lay', 'heap-undo'])
})
