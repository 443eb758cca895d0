import { describe, expect, it } from 'vitest'
import { drawYear } from './year'

const year = (mean_c: number, swing_c: number, rain_mm: number) =>
  Array.from({ length: 12 }, () => ({ mean_c, swing_c, rain_mm }))

describe('the drawing of a year', () => {
  it('has a place for each month and bars as high as the rain', () => {
    const months = year(10, 5, 50)
    months[3]!.rain_mm = 100
    const drawn = drawYear(months)
    expect(drawn.centres).toHaveLength(12)
    expect(drawn.rain[3]!.height).toBeCloseTo(2 * drawn.rain[0]!.height, 0)
  })

  it('is drawn for a year without warmth or rain', () => {
    const drawn = drawYear(year(0, 0, 0))
    expect(drawn.mean + drawn.band).not.toMatch(/NaN|Infinity/)
    expect(drawn.rain.every((bar) => bar.height === 0)).toBe(true)
  })
})
