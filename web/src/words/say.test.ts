import { describe, expect, it } from 'vitest'
import { sayAmount, sayCount, sayCubic, sayExact } from './say'

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
