import { describe, expect, it } from 'vitest'
import { readNumber, writeNumber } from './number'

describe('a number as it is typed', () => {
  it('takes a comma or a point', () => {
    expect(readNumber('2.5')).toBe(2.5)
    expect(readNumber('2,5')).toBe(2.5)
    expect(readNumber(' 12 ')).toBe(12)
    expect(readNumber(',5')).toBe(0.5)
  })

  it('takes fractions', () => {
    expect(readNumber('1/2')).toBe(0.5)
    expect(readNumber('2½')).toBe(2.5)
    expect(readNumber('¼')).toBe(0.25)
  })

  it('knows what is no number', () => {
    for (const typed of ['', ' ', 'four', '1.2.3', '1,2,3', '.', '-', '1/0', 'NaN', 'Infinity', '1e9']) {
      expect(readNumber(typed), typed).toBeNull()
    }
  })

  it('comes back as it was written', () => {
    for (const locale of ['en', 'es', 'de', 'fr']) {
      expect(readNumber(writeNumber(1234.5, 2, locale))).toBe(1234.5)
    }
    expect(writeNumber(null, 2, 'en')).toBe('')
  })
})
