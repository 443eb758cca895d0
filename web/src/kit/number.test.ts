import { describe, expect, it } from 'vitest'
import { readNumber, writeNumber } from './number'

describe('a number as it is typed', () => {
  it('takes a comma or a point, whatever the locale', () => {
    for (const locale of ['en-GB', 'de-DE', 'es-PE']) {
      expect(readNumber('2.5', locale)).toBe(2.5)
      expect(readNumber('2,5', locale)).toBe(2.5)
      expect(readNumber(' 12 ', locale)).toBe(12)
      expect(readNumber(',5', locale)).toBe(0.5)
      expect(readNumber('0,450', locale)).toBe(0.45)
      expect(readNumber('5,5', locale)).toBe(5.5)
    }
  })

  it('takes thousands as the locale writes them, and as nobody could mean otherwise', () => {
    expect(readNumber('1,050', 'en-GB')).toBe(1050)
    expect(readNumber('1.050', 'en-GB')).toBe(1.05)
    expect(readNumber('1.050', 'de-DE')).toBe(1050)
    expect(readNumber('1,050', 'de-DE')).toBe(1.05)
    for (const locale of ['en-GB', 'de-DE', 'fr-FR']) {
      expect(readNumber('1,234.5', locale)).toBe(1234.5)
      expect(readNumber('1.234,5', locale)).toBe(1234.5)
      expect(readNumber('1,234,567', locale)).toBe(1_234_567)
      expect(readNumber('1 050', locale)).toBe(1050)
      expect(readNumber('1’050', locale)).toBe(1050)
      expect(readNumber('1000000', locale)).toBe(1_000_000)
    }
  })

  it('takes fractions, mixed ones too', () => {
    for (const [typed, number] of [
      ['1/2', 0.5],
      ['2½', 2.5],
      ['2 ½', 2.5],
      ['¼', 0.25],
      ['2 1/2', 2.5],
      ['10 3/4', 10.75],
    ] as const) {
      expect(readNumber(typed, 'en-GB'), typed).toBe(number)
    }
  })

  it('knows what is no number', () => {
    const odd = [
      '',
      ' ',
      'four',
      '1.2.3',
      '1,2,3',
      '.',
      '-',
      '1/0',
      'NaN',
      'Infinity',
      '1e9',
      '1 2',
      '2,5½',
      '1,23,456',
    ]
    for (const typed of odd) expect(readNumber(typed, 'en-GB'), typed).toBeNull()
  })

  it('comes back as it was written', () => {
    for (const locale of ['en', 'es', 'de', 'fr']) {
      for (const value of [1234.5, 0.45, 1050, 2.25, 1_000_000]) {
        expect(readNumber(writeNumber(value, 3, locale), locale)).toBe(value)
        expect(readNumber(new Intl.NumberFormat(locale).format(value), locale)).toBe(value)
      }
    }
    expect(writeNumber(null, 2, 'en')).toBe('')
  })
})
