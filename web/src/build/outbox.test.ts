import { beforeEach, expect, test, vi } from 'vitest'
import type { Heap } from '@/api/client'
import { type Act, actOf, bodyOf, keep, kept, withWaiting } from './outbox'

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
  head: 'first',
  laid: 0,
  planned: 3,
  can_undo: false,
  items: [],
  build: { steps: [step(2), step(1), step(2)], laid: 0, anew: [{ status: 'ok' }] },
} as unknown as Heap

function done(...whats: [Act['what'], Act['laid']?][]): Act[] {
  const waiting: Act[] = []
  for (const [what, laid] of whats) waiting.push(actOf(heap, waiting, what, laid))
  return waiting
}
const lay = (at: number, amount: number): [Act['what'], Act['laid']] => [
  'lay',
  { step: at, portions: [{ item: 0, amount }], water_l: 4, new_items: [] },
]

beforeEach(() => {
  const kept = new Map<string, string>()
  vi.stubGlobal('localStorage', {
    getItem: (name: string) => kept.get(name) ?? null,
    setItem: (name: string, text: string) => kept.set(name, text),
    removeItem: (name: string) => kept.delete(name),
  })
})

test('acts made without signal stand one after the other, each with an id of its own', () => {
  const [one, two, three] = done(lay(0, 2), lay(1, 1), ['undo'])
  expect([one!.after, two!.after, three!.after]).toEqual(['first', one!.entry, two!.entry])
  expect(new Set([one!.entry, two!.entry, three!.entry]).size).toBe(3)
  expect(one!.entry).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7/)
  expect(bodyOf(one!)).toMatchObject({ entry: one!.entry, after: 'first', step: 0, water_l: 4 })
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

test('what is put right, undone or ended while it waits is so on the page', () => {
  expect(withWaiting(heap, done(lay(0, 3), lay(0, 2))).build.laid).toBe(1)
  expect(withWaiting(heap, done(lay(0, 3), ['undo'])).build).toEqual(heap.build)
  expect(withWaiting(heap, done(lay(0, 3), ['end'])).build.steps).toHaveLength(1)
  // A layer that cannot be next is left out, and undoing nothing does nothing.
  expect(withWaiting(heap, done(lay(2, 3), ['undo'])).build.laid).toBe(0)
})

test('they outlive the page, in order, for their own heap alone', () => {
  const waiting = done(lay(0, 2), lay(1, 1))
  keep('a', waiting)
  expect(kept('a')).toEqual(waiting)
  expect(kept('b')).toEqual([])
  keep('a', [])
  expect(kept('a')).toEqual([])
  for (const odd of ['{', '{"what":"lay"}', '[{"what":"lay"}]']) {
    localStorage.setItem('zymarch-build-a', odd)
    expect(kept('a')).toEqual([])
  }
})
