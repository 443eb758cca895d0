import { describe, expect, it } from 'vitest'
import { barrow, lot } from '@/testing/samples'
import { amountOf, partFrom, pieces } from './sentence'

describe('a sentence', () => {
  it('gives an amount only where it was said in what', () => {
    expect(amountOf({ amount: 2, measure: 'barrow' })).toEqual({
      amount: 2,
      unit: 'measure',
      measure_id: 'barrow',
    })
    expect(amountOf({ kg: 12.5 })).toEqual({ amount: 12.5, unit: 'kg', measure_id: null })
    expect(amountOf({ litres: 30 })?.unit).toBe('litre')
    expect(amountOf({ amount: 4 })).toBeNull()
    expect(amountOf({ amount: -3, measure: 'barrow' })).toBeNull()
  })

  it('takes the figures of what is on hand, and the book where nothing is', () => {
    const said = { amount: 2, unit: 'measure' as const, measure_id: 'barrow' }
    const own = { moisture_pct: 30 }
    const part = partFrom({ material: 'barley-straw' }, said, [lot({ own })], [barrow])
    expect(part).toMatchObject({ lot_id: 'lot-1', own, amount: 2, measure_litres: barrow.litres })
    const other = partFrom({ material: 'goat-manure' }, said, [lot()], [barrow])
    expect(other).toMatchObject({ lot_id: null, material: 'goat-manure', own: {} })
  })

  it('is marked where it was not understood', () => {
    expect(pieces('½ sack of this, 2 of that', [{ from: 0, to: 14 }])).toEqual([
      { text: '½ sack of this', isUnknown: true },
      { text: ', 2 of that', isUnknown: false },
    ])
  })
})
