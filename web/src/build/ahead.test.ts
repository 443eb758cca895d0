import { expect, test } from 'vitest'
import type { Heap } from '@/api/client'
import { type Act, actOf } from '@/api/outbox/act'
import { begunHere, doneTo, type Laid, withWaiting } from './ahead'

const step = (amount: number) => ({
  role: 'brown',
  portions: [{ item: 0, amount }],
  litres: [amount * 70],
  water_l: 5,
  beside_l: 0,
  thickness_cm: 10,
  top_cm: 10,
  cycle: 1,
  planned: null,
})
const heap = {
  id: 'heap-1',
  head: 'first',
  laid: 0,
  planned: 3,
  can_undo: false,
  items: [],
  build: {
    steps: [step(2), step(1), step(2)],
    laid: 0,
    at_end: { c_n: 50 },
    anew: [{ way: 'size', size: 'heats', height_cm: 25, at_end: { c_n: 30 }, steps: [step(2), step(3)] }],
  },
} as unknown as Heap

function done(...whats: [Act['kind'], Laid?][]): Act[] {
  const waiting: Act[] = []
  for (const [kind, laid] of whats)
    waiting.push(actOf(doneTo(heap, waiting, kind, kind, laid && { ...laid }), null))
  return waiting
}
const lay = (at: number, amount: number): [Act['kind'], Laid] => [
  'heap-lay',
  { step: at, portions: [{ item: 0, amount }], water_l: 4, new_items: [] },
]
const entryOf = (act?: Act) => act?.body?.entry as string

test('acts made without signal are all done after what the farm told, and say which are their own', () => {
  const [one, two, three] = done(lay(0, 2), lay(1, 1), ['heap-undo'])
  expect([one, two, three].map((act) => act?.body?.after)).toEqual(['first', 'first', 'first'])
  expect(one?.body?.mine).toEqual([])
  expect(three?.body?.mine).toEqual([entryOf(one), entryOf(two)])
  expect(new Set([one, two, three].map(entryOf)).size).toBe(3)
  expect(entryOf(one)).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7/)
  expect(one).toMatchObject({ of: 'heap-1', path: { id: 'heap-1' }, body: { step: 0, water_l: 4 } })
})

test('the heap goes on as if they had arrived', () => {
  const now = withWaiting(heap, done(lay(0, 3), lay(1, 1)))
  expect([now.laid, now.build.laid, now.can_undo]).toEqual([2, 2, true])
  expect(now.build.steps[0]).toMatchObject({ portions: [{ item: 0, amount: 3 }], litres: [210], water_l: 4 })
  expect(now.build.steps[0]!.planned?.portions).toEqual([{ item: 0, amount: 2 }])
  // What it would come to is the server's to say.
  expect([now.build.anew, now.build.so_far]).toEqual([[], null])
  expect(now.build.height_cm).toBe(10)
  expect(heap.build.laid).toBe(0)
})

test('how it ends is known without signal as long as it goes by the plan', () => {
  const asPlanned = { step: 0, portions: [{ item: 0, amount: 2 }], water_l: 5, new_items: [] }
  expect(withWaiting(heap, done(['heap-lay', asPlanned])).build.at_end).toEqual({ c_n: 50 })
  expect(withWaiting(heap, done(['heap-lay', { ...asPlanned, water_l: 9 }])).build.at_end).toBeNull()
})

test('the rest planned anew without signal is what the farm had offered, and only while it is offered', () => {
  const anew = (of: Heap, before: Act[], way: string) =>
    withWaiting(of, [...before, actOf(doneTo(of, before, 'heap-anew', '', { way }), null)])
  const now = anew(heap, [], 'size')
  expect(now.build.steps.map(({ portions }) => portions[0]!.amount)).toEqual([2, 3])
  expect([now.planned, now.build.end_height_cm, now.build.size]).toEqual([2, 25, 'heats'])
  expect([now.build.at_end, now.build.anew, now.can_undo]).toEqual([{ c_n: 30 }, [], true])
  expect(anew(heap, [], 'stock')).toEqual(heap)
  // Of a heap that went on nothing was told.
  const laid = done(lay(0, 3))
  expect(anew(heap, laid, 'size')).toEqual(withWaiting(heap, laid))
})

test('what is put right, undone or ended while it waits is so on the page', () => {
  expect(withWaiting(heap, done(lay(0, 3), lay(0, 2))).build.laid).toBe(1)
  expect(withWaiting(heap, done(lay(0, 3), ['heap-undo'])).build).toEqual(heap.build)
  expect(withWaiting(heap, done(lay(0, 3), ['heap-end'])).build.steps).toHaveLength(1)
  // A layer that cannot be next is left out, and undoing nothing does nothing.
  expect(withWaiting(heap, done(lay(2, 3), ['heap-undo'])).build.laid).toBe(0)
})

test('what is taken from stock without signal is taken on the page, until it is given back', () => {
  expect(withWaiting(heap, done(['heap-take'])).taken_at).toBeTruthy()
  expect(withWaiting(heap, done(['heap-take'], ['heap-give-back'])).taken_at).toBeNull()
})

test('a heap that was begun here is known by what it was begun as', () => {
  const begun = actOf({ kind: 'heap-begin', of: 'heap-1', path: {}, says: '', shows: heap }, null)
  expect(begunHere([begun])).toEqual(heap)
  expect(begunHere(done(lay(0, 1)))).toBeUndefined()
})
