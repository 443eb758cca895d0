import { describe, expect, it, test } from 'vitest'
import { isHandy, sayAgainst, sayAmount, sayCount, sayCubic, sayExact, sayWhole } from './say'

describe('numbers as a person says them', () => {
  it('counts measures in handy parts', () => {
    expect([18, 2.5, 0.25, 4 / 3, 0, 1.37].map((count) => sayCount(count, 'en'))).toEqual([
      '18',
      '2½',
      '¼',
      '1⅓',
      '0',
      '1.4',
    ])
  })

  it('does not call something nothing', () => {
    expect(sayCount(0.5, 'en')).toBe('½')
    expect(sayAmount(0.5, 'en')).toBe('0.5')
  })

  it('rounds weights, not small ones', () => {
    expect(sayAmount(3.54, 'en')).toBe('3.5')
    expect(sayAmount(77.4, 'en')).toBe('77')
    expect(sayAmount(77.4, 'de')).toBe('77')
    expect(sayAmount(3.54, 'es')).toBe('3,5')
  })

  it('keeps four digits on the board', () => {
    expect(sayExact(0.0123456, 'en')).toBe('0.01235')
    expect(sayExact(29.8411, 'en')).toBe('29.84')
  })

  it('says heaps in cubic metres', () => {
    expect(sayCubic(1234, 'en')).toBe('1.2')
    expect(sayCubic(60, 'en')).toBe('0.06')
  })
})

test('a handy amount is one that a person fills', () => {
  for (const count of [1, 2.5, 0.25, 1 / 3, 0.75, 18]) expect(isHandy(count)).toBe(true)
  for (const count of [0.1, 0.42, 1.13, 2.9]) expect(isHandy(count)).toBe(false)
})

test('a figure outside of its edge is never said to be the edge', () => {
  expect(sayAgainst(24.9, [25, 30], 'en')).toBe('24.9')
  expect(sayAgainst(60.3, [50, 60], 'en')).toBe('60.3')
  expect(sayAgainst(27.4, [25, 30], 'en')).toBe('27')
  expect(sayAgainst(31.2, [25, 30], 'en')).toBe('31')
})

test('what rounds to nothing has no sign', () => {
  expect(sayWhole(-0.3, 'en')).toBe('0')
  expect(sayAmount(-0.01, 'en')).toBe('0')
  expect(sayWhole(-1.2, 'en')).toBe('-1')
})
