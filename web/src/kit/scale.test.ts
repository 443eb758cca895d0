import { expect, test } from 'vitest'
import { linear, logarithmic, rooted } from './scale'

test('the ends of what is measured lie at the ends of what is drawn, whichever way it runs', () => {
  for (const scale of [linear, logarithmic, rooted]) {
    const place = scale([4, 100], [300, 20])
    expect(place(4)).toBeCloseTo(300)
    expect(place(100)).toBeCloseTo(20)
  }
})

test('the middle lies where its scale has it', () => {
  expect(linear([0, 80], [0, 1])(20)).toBeCloseTo(0.25)
  expect(logarithmic([10, 1000], [0, 1])(100)).toBeCloseTo(0.5)
  expect(rooted([0, 100], [0, 1])(25)).toBeCloseTo(0.5)
})

test('what lies outside is drawn outside, in the same line', () => {
  expect(linear([0, 10], [0, 100])(-1)).toBeCloseTo(-10)
})
