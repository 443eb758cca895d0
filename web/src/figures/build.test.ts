import { beforeEach, expect, test, vi } from 'vitest'
import type { BuildState, Heap, MixSums } from '@/api/client'
import { drawable, faultOf, isAsPlanned, isGrave, keepWaiting, keptWaiting, wasKept } from './build'
import { bandsOf } from './section'

function state(standing: Partial<Record<'c_n' | 'moisture' | 'free_air_space', string>> = {}): BuildState {
  const step = { cycle: 1, role: 'mix', water_l: 2, beside_l: 0, planned: null }
  return {
    steps: [
      { ...step, role: 'foundation', portions: [], litres: [], beside_l: 90, thickness_cm: 8, top_cm: 8 },
      { ...step, portions: [{ item: 0, amount: 2 }], litres: [120], thickness_cm: 6, top_cm: 14 },
      {
        ...step,
        portions: [
          { item: 0, amount: 1 },
          { item: 1, amount: 1 },
        ],
        litres: [60, 70],
        thickness_cm: 9,
        top_cm: 23,
      },
    ],
    laid: 1,
    height_cm: 8,
    end_height_cm: 23,
    outline: [
      [0, 60],
      [120, 60],
    ],
    section_width_cm: 120,
    rim_cm: 120,
    vent: 'none',
    vents: [],
    at_end: { standing: { c_n: 'right', moisture: 'right', free_air_space: 'right', ...standing } },
  } as unknown as BuildState
}

test('each step is one band, with all that went into it', () => {
  const plan = drawable(state())
  const bands = bandsOf(plan)
  expect(bands.map(({ layers }) => layers.length)).toEqual([1, 1, 2])
  expect(bands.map(({ from, to }) => [from, to])).toEqual([
    [0, 8],
    [8, 14],
    [14, 23],
  ])
  expect(plan.layers[0]!.item).toBeNull()
})

test('the fault that water cannot mend is told first', () => {
  const fault = (standing: Parameters<typeof state>[0]) => faultOf(state(standing).at_end?.standing)
  expect(faultOf(undefined)).toBeNull()
  expect(fault({})).toBeNull()
  expect(fault({ c_n: 'far-above', moisture: 'below' })).toBe('brown')
  expect(fault({ c_n: 'below' })).toBe('green')
  expect(fault({ free_air_space: 'below', moisture: 'above' })).toBe('dense')
  expect(fault({ moisture: 'far-above' })).toBe('wet')
  expect(fault({ moisture: 'below' })).toBe('dry')
})

test('what was planned to end so is not news', () => {
  const ends = (c_n: number, moisture_pct: number) =>
    ({ ...state({ c_n: 'above' }).at_end!, c_n, moisture_pct }) as MixSums
  const told = (now: MixSums, then: MixSums | null) =>
    isAsPlanned({ ...state(), at_end: now, as_planned: then })
  expect(told(ends(31, 56), ends(31.1, 56.5))).toBe(true)
  expect(told(ends(34, 56), ends(31, 56))).toBe(false)
  expect(told(ends(31, 59), ends(31, 56))).toBe(false)
  expect(told(ends(31, 56), null)).toBe(false)
  expect(isGrave(state({ c_n: 'above' }).at_end!.standing)).toBe(false)
  expect(isGrave(state({ c_n: 'far-above' }).at_end!.standing)).toBe(true)
})

beforeEach(() => {
  const kept = new Map<string, string>()
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, text: string) => kept.set(key, text),
    removeItem: (key: string) => kept.delete(key),
  })
})

test('an act that waits outlives the page, for its own heap alone', () => {
  const act = { what: 'lay' as const, body: { version: 3, step: 2 } }
  keepWaiting(7, act)
  expect(keptWaiting(7)).toEqual(act)
  expect(keptWaiting(8)).toBeNull()
  keepWaiting(7, null)
  expect(keptWaiting(7)).toBeNull()
  localStorage.setItem('zymarch-build-7', '{')
  expect(keptWaiting(7)).toBeNull()
})

test('an act whose answer was lost is told from what somebody else did', () => {
  const heap = (version: number) => ({ version, build: state() }) as Heap
  const lay = (amount: number) => ({
    what: 'lay' as const,
    body: { version: 3, step: 1, portions: [{ amount, item: 0 }], water_l: 2 },
  })
  expect(wasKept(heap(4), lay(2))).toBe(true)
  expect(wasKept(heap(4), lay(3))).toBe(false)
  expect(wasKept(heap(5), lay(2))).toBe(false)
  expect(wasKept(heap(4), { what: 'undo', body: { version: 3 } })).toBe(true)
})
