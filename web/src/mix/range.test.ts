import { describe, expect, it } from 'vitest'
import { placeOf } from './range'

describe('the place on a scale', () => {
  it('runs evenly for shares and by the logarithm for ratios', () => {
    expect(placeOf('moisture_pct', 25)).toBe(0.25)
    const [low, middle, high] = [6, 60, 600].map((value) => placeOf('c_n', value))
    expect(middle! - low!).toBeCloseTo(high! - middle!, 9)
  })

  it('stays on the scale', () => {
    expect(placeOf('c_n', 0)).toBe(0)
    expect(placeOf('density_kg_l', 5)).toBe(1)
    expect(placeOf('moisture_pct', -3)).toBe(0)
  })
})
