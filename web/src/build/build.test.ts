import { expect, test } from 'vitest'
import type { BuildState, MixSums } from '@/api/client'
import { drawable, faultOf, isAsPlanned, isGrave, isUnreckoned } from './build'
import { bandsOf } from '@/plan/section'

type Flaw = MixSums['complaints'][number]['flaw']

function state(...flaws: [Flaw, boolean?][]): BuildState {
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
    at_end: { complaints: flaws.map(([flaw, far = false]) => ({ flaw, far })) },
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

test('the gravest fault is told, in the order that the server gives', () => {
  const fault = (...flaws: Flaw[]) => faultOf(state(...flaws.map((flaw): [Flaw] => [flaw])).at_end)
  expect(faultOf(undefined)).toBeNull()
  expect(fault()).toBeNull()
  expect(fault('too-brown', 'too-dry')).toBe('brown')
  expect(fault('too-dense', 'too-wet')).toBe('dense')
  expect([fault('too-green'), fault('too-wet'), fault('too-dry')]).toEqual(['green', 'wet', 'dry'])
})

test('what was planned to end so is not news', () => {
  const ends = (c_n_counted: number, moisture_pct: number) =>
    ({ ...state(['too-brown']).at_end!, c_n_counted, moisture_pct }) as MixSums
  const told = (now: MixSums, then: MixSums | null) =>
    isAsPlanned({ ...state(), at_end: now, as_planned: then })
  expect(told(ends(31, 56), ends(31.1, 56.5))).toBe(true)
  expect(told(ends(34, 56), ends(31, 56))).toBe(false)
  expect(told(ends(31, 59), ends(31, 56))).toBe(false)
  expect(told(ends(31, 56), null)).toBe(false)
  expect(isGrave(state(['too-brown']).at_end!)).toBe(false)
  expect(isGrave(state(['too-brown', true]).at_end!)).toBe(true)
})

test('what comes of a layer laid otherwise is unknown until it is reckoned; a heap that never had sums lacks none', () => {
  const sums = { c_n: 30 } as unknown as MixSums
  expect(isUnreckoned({ at_end: null, as_planned: sums })).toBe(true)
  expect(isUnreckoned({ at_end: sums, as_planned: sums })).toBe(false)
  expect(isUnreckoned({ at_end: null, as_planned: null })).toBe(false)
})
