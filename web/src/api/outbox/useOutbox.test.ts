// @vitest-environment happy-dom
import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { enableAutoUnmount, flushPromises } from '@vue/test-utils'
import { asked, refusal, serve, unserve } from '@/testing/served'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { defineComponent, h, reactive } from 'vue'
import { heap } from '@/testing/samples'
import { mounted } from '@/testing/mounted'
import type { Act, Doing } from './act'

enableAutoUnmount(afterEach)
beforeEach(() => {
  unserve()
  localStorage.clear()
  globalThis.indexedDB = new IDBFactory()
})

/** A page that was opened just now; what an earlier one left is all it knows. */
async function page() {
  vi.resetModules()
  const { useOutbox, WAITS } = await import('./useOutbox')
  let outbox!: ReturnType<typeof useOutbox>
  const part = mounted(
    defineComponent(() => {
      outbox = useOutbox()
      return () => h('div')
    }),
  )
  await settled()
  return { outbox, WAITS, part }
}
const settled = () => new Promise((done) => setTimeout(done, 30)).then(flushPromises)

const used = (lot: string, amount = 1): Doing => ({
  kind: 'lot-happened',
  of: lot,
  path: { id: lot },
  body: { kind: 'used', amount, entry: `${lot}-${amount}` },
  says: `Used: ${amount}`,
})
const HISTORY = (lot: string) => `/api/lots/${lot}/history`
const entries = (lot: string) =>
  asked('POST', HISTORY(lot)).map(({ body }) => (body as { entry: string }).entry)

test('with signal the answer comes back, and nothing is left', async () => {
  serve(`POST ${HISTORY('a')}`, { body: { id: 'a', amount: 3 } })
  const { outbox } = await page()
  expect(await outbox.does(used('a'))).toEqual({ id: 'a', amount: 3 })
  expect(outbox.acts).toEqual([])
})

test('what the farm refuses at once is told at once, and was never done', async () => {
  serve(`POST ${HISTORY('a')}`, refusal(422, { field: 'amount', code: 'not-enough', reason: 'only 2 left' }))
  const { outbox } = await page()
  await expect(outbox.does(used('a'))).rejects.toThrow('only 2 left')
  expect(outbox.acts).toEqual([])
  expect((await page()).outbox.acts).toEqual([])
})

test('without signal it waits, through pages that close, in the order in which it was done', async () => {
  serve('POST /api/lots/*/history', 'silence')
  const first = await page()
  for (const doing of [used('a'), used('b'), used('a', 2)])
    expect(await first.outbox.does(doing)).toBe(first.WAITS)
  first.part.unmount()

  unserve()
  serve('POST /api/lots/*/history', { body: null })
  const { outbox } = await page()
  await settled()
  expect(outbox.acts).toEqual([])
  const order = asked('POST', /history$/).map(({ body }) => (body as { entry: string }).entry)
  expect(order).toEqual(['a-1', 'b-1', 'a-2'])
})

test('what a page watches and goes on to change is kept as it was done', async () => {
  serve('POST /api/lots/*/history', 'silence')
  const first = await page()
  const doing = reactive(used('a'))
  await first.outbox.does(doing)
  doing.body!.amount = 7
  expect(first.outbox.isForgetful).toBe(false)
  first.part.unmount()
  expect((await page()).outbox.acts[0]?.body).toMatchObject({ amount: 1 })
})

test('what a browser has no room for waits on the page all the same, which says so', async () => {
  serve('POST /api/lots/*/history', 'silence')
  const { outbox } = await page()
  const full = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
    throw new DOMException('no room', 'QuotaExceededError')
  })
  await outbox.does(used('a'))
  full.mockRestore()
  // The others are read again with each new try.
  await outbox.flush()
  expect([outbox.isForgetful, outbox.waiting.length]).toEqual([true, 1])
  serve('POST /api/lots/*/history', { body: null })
  await outbox.flush()
  expect(outbox.acts).toEqual([])
})

test('what is refused later waits for a word, and only what is about the same thing waits behind it', async () => {
  serve('POST /api/lots/*/history', 'silence')
  const { outbox } = await page()
  for (const doing of [used('a'), used('a', 2), used('b')]) await outbox.does(doing)
  unserve()
  serve(`POST ${HISTORY('a')}`, refusal(422, { field: 'amount', code: 'not-enough', reason: 'only 0 left' }))
  serve(`POST ${HISTORY('b')}`, { body: null })
  await outbox.flush()
  expect(outbox.waiting.map(({ trouble }) => trouble?.words)).toEqual(['amount only 0 left', undefined])
  expect([entries('a'), entries('b')]).toEqual([['a-1'], ['b-1']])
  // A new page knows it, too, and a new act on the same thing waits behind.
  const again = await page()
  expect(again.outbox.stuck).toHaveLength(1)
  expect(await again.outbox.does(used('a', 3))).toBe(again.WAITS)
  serve(`POST ${HISTORY('a')}`, { body: null })
  await again.outbox.again(again.outbox.stuck[0]!)
  await settled()
  expect(again.outbox.acts).toEqual([])
  expect(entries('a').slice(-3)).toEqual(['a-1', 'a-2', 'a-3'])
})

const fields = {
  material: 'straw',
  label: null as string | null,
  amount: 5,
  unit: 'kg',
  price: null as number | null,
}
const relabel = (label: string): Doing => ({
  kind: 'lot-change',
  of: 'a',
  path: { id: 'a', site: 's' },
  body: { version: 1, lot: { ...fields, label } },
  base: { ...fields },
  says: 'Straw',
})

async function changedLate(theirs: object) {
  serve('PUT /api/lots/a', 'silence')
  const { outbox } = await page()
  await outbox.does(relabel('Ridge'))
  unserve()
  serve('GET /api/sites/s/lots', { body: [{ id: 'a', version: 4, ...fields, ...theirs }] })
  serve('PUT /api/lots/a', ({ body }) => ({ body: { id: 'a', ...(body as object) } }))
  await outbox.flush()
  return outbox
}

test('two who changed one record in different fields both did', async () => {
  const outbox = await changedLate({ amount: 3, price: 2 })
  expect(outbox.acts).toEqual([])
  expect(asked('PUT', '/api/lots/a')[0]?.body).toEqual({
    version: 4,
    lot: { ...fields, label: 'Ridge', amount: 3, price: 2 },
  })
})

test('two who changed the same field are both shown, and the one who decides is right', async () => {
  const outbox = await changedLate({ label: 'Barn' })
  expect(asked('PUT', '/api/lots/a')).toEqual([])
  const [act] = outbox.stuck
  expect(act?.trouble).toMatchObject({ clashes: true, fields: ['label'], now: { label: 'Barn' } })
  await outbox.again(act!, { base: act!.trouble!.now })
  expect(asked('PUT', '/api/lots/a')[0]?.body).toMatchObject({ version: 4, lot: { label: 'Ridge' } })
  expect(outbox.acts).toEqual([])
})

test('a change whose answer was lost is not made twice', async () => {
  const outbox = await changedLate({ label: 'Ridge' })
  expect([outbox.acts, asked('PUT', '/api/lots/a')]).toEqual([[], []])
})

test('a heap begun on two phones is one: what was done to it here is done to that one', async () => {
  const begin: Doing = {
    kind: 'heap-begin',
    of: 'mine',
    path: { batch: 'batch-1' },
    query: { id: 'mine' },
    says: 'Terrace heap',
  }
  const lay: Doing = {
    kind: 'heap-lay',
    of: 'mine',
    path: { id: 'mine' },
    body: { after: 'mine' },
    says: '1',
  }
  serve('POST /api/batches/batch-1/build', 'silence')
  const { outbox } = await page()
  await outbox.does(begin)
  await outbox.does(lay)
  serve('POST /api/batches/batch-1/build', { body: { ...heap(), id: 'theirs' } })
  serve('POST /api/heaps/theirs/lay', { body: { ...heap(3, 1), id: 'theirs' } })
  await outbox.flush()
  expect(outbox.moved.get('mine')).toBe('theirs')
  expect(asked('POST', '/api/heaps/theirs/lay')[0]?.body).toEqual({ after: 'mine' })
  expect(outbox.acts).toEqual([])
})

test('what waited under an earlier version of the app is taken over', async () => {
  const before = [
    {
      what: 'lay',
      entry: '0190-a',
      after: 'head',
      at: '2026-03-14T08:00:00Z',
      laid: { step: 0, portions: [], water_l: 4 },
    },
    { what: 'undo', entry: '0190-b', after: '0190-a', at: '2026-03-14T08:01:00Z' },
  ]
  localStorage.setItem('zymarch-build-heap-1', JSON.stringify(before))
  serve('POST /api/heaps/heap-1/lay', { body: heap(3, 1) })
  serve('POST /api/heaps/heap-1/undo', { body: heap(3, 0) })
  const { outbox } = await page()
  await settled()
  expect(asked('POST', '/api/heaps/heap-1/lay')[0]?.body).toMatchObject({
    entry: '0190-a',
    after: 'head',
    step: 0,
  })
  expect(asked('POST', '/api/heaps/heap-1/undo')[0]?.body).toEqual({
    entry: '0190-b',
    after: 'head',
    mine: ['0190-a'],
  })
  expect([outbox.acts, localStorage.length]).toEqual([[], 0])
})

test('what is carried over from another device is sent from here, and once however often it is taken in', async () => {
  const { actOf } = await import('./act')
  const acts: Act[] = [actOf(used('a'), 'somebody'), actOf(used('b'), 'somebody')]
  serve('POST /api/lots/*/history', 'silence')
  const { outbox } = await page()
  expect([await outbox.takeIn(acts), await outbox.takeIn(acts)]).toEqual([2, 0])
  serve('POST /api/lots/*/history', { body: null })
  await outbox.flush()
  expect([outbox.acts, entries('a').at(-1), entries('b').at(-1)]).toEqual([[], 'a-1', 'b-1'])
})

test('what was sent without an answer may be with the farm; what never left is only here', async () => {
  serve(`POST ${HISTORY('a')}`, 'silence')
  const { outbox, WAITS } = await page()
  const isThere = vi.spyOn(navigator, 'onLine', 'get').mockReturnValue(false)
  expect(await outbox.does(used('a'))).toBe(WAITS)
  const [act] = outbox.acts
  expect(outbox.isOnlyHere(act!.id)).toBe(true)
  isThere.mockRestore()
  await outbox.flush()
  expect([outbox.waiting.length, outbox.isOnlyHere(act!.id)]).toEqual([1, false])
  // Nor does a page that was opened later know what came of it.
  expect((await page()).outbox.isOnlyHere(act!.id)).toBe(false)
})

test('a heap begun here that is another at the farm is found again after the page was closed', async () => {
  serve('POST /api/batches/b/build', { body: heap(3, 0, { id: 'theirs' }) })
  const { outbox } = await page()
  await outbox.does({ kind: 'heap-begin', of: 'mine', path: { batch: 'b' }, says: 'Terrace heap' })
  expect(outbox.moved.get('mine')).toBe('theirs')
  expect((await page()).outbox.moved.get('mine')).toBe('theirs')
})
