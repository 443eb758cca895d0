import { describe, expect, it } from 'vitest'
import { fromShown, type Quantity, signOf, toShown } from './units'

const ALL: Quantity[] = [
  'mass',
  'sample',
  'volume',
  'heap',
  'length',
  'altitude',
  'rain',
  'temperature',
  'swing',
  'density',
]

describe('units', () => {
  it('are those of the tables', () => {
    expect(toShown(1, 'mass', 'us')).toBeCloseTo(2.20462, 4)
    expect(toShown(28.349523125, 'sample', 'us')).toBeCloseTo(1, 9)
    expect(toShown(70, 'volume', 'us')).toBeCloseTo(18.492, 3)
    expect(toShown(1000, 'heap', 'us')).toBeCloseTo(1.30795, 4)
    expect(toShown(254, 'length', 'us')).toBeCloseTo(100, 9)
    expect(toShown(2900, 'altitude', 'us')).toBeCloseTo(9514.4, 1)
    expect(toShown(25.4, 'rain', 'us')).toBeCloseTo(1, 9)
    expect(toShown(55, 'temperature', 'us')).toBeCloseTo(131, 9)
    expect(toShown(5, 'swing', 'us')).toBeCloseTo(9, 9)
    expect(toShown(1, 'density', 'us')).toBeCloseTo(62.428, 3)
  })

  it('come back as they went', () => {
    for (const quantity of ALL)
      for (const system of ['metric', 'us'] as const) {
        expect(fromShown(toShown(12.34, quantity, system), quantity, system)).toBeCloseTo(12.34, 9)
        expect(signOf(quantity, system)).not.toBe('')
      }
  })
})
