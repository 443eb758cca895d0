import { describe, expect, it } from 'vitest'
import type { FormulateAnswer, Lot, Measure } from '@/api/client'
import { amountsOf, distinct, offersOf, requestOf, urgencyOf } from './choices'

const lot = (id: number, more: object) =>
  ({
    id,
    material: 'barley-straw',
    amount: 4,
    unit: 'measure',
    measure_id: 1,
    kg: 14,
    own: {},
    tests: [],
    days_left: null,
    must_not_go_in: false,
    figures: { density_kg_l: { value: 0.5, origin: 'book' } },
    ...more,
  }) as unknown as Lot
const barrow = { id: 1, litres: 70 } as Measure
const answer = (kg: number[], water_l: number, counts: number[] = []) =>
  ({
    items: kg.map((one, index) => ({ kg: one, count: counts[index] })),
    water_l,
  }) as unknown as FormulateAnswer

describe('choices', () => {
  it('offer what may go in, each in its own steps', () => {
    const lots = [
      lot(1, {}),
      lot(2, { amount: 0 }),
      lot(3, { must_not_go_in: true }),
      lot(4, { unit: 'kg', measure_id: null, amount: 30 }),
    ]
    const offers = offersOf(lots, [barrow], () => 10)
    expect(offers.map(({ lot, litres, step }) => [lot.id, litres, step])).toEqual([
      [1, 70, 1],
      [4, 20, 10],
    ])
    const request = requestOf(offers, { aim: 'largest', size: [500, 2000], isWhole: true, bucket: barrow })
    expect(request.measures).toHaveLength(3)
    expect(request.stock[1]).toMatchObject({ kg_available: 14, measure: 'lot-4' })
  })

  it('press what spoils first', () => {
    expect(urgencyOf({ days_left: -3 })).toBe(1)
    expect(urgencyOf({ days_left: 3 })).toBe(0.25)
    expect(urgencyOf({ days_left: null })).toBeLessThan(urgencyOf({ days_left: 60 }))
  })

  it('come back in the lots own units', () => {
    const offers = offersOf([lot(1, {}), lot(4, { unit: 'kg', measure_id: null })], [barrow], () => 10)
    const amounts = amountsOf(answer([7, 0], 10, [2.0000000001, 0]), offers)
    expect(amounts).toMatchObject([{ amount: 2 }])
  })

  it('are shown once when they are the same mix', () => {
    const choices = distinct([
      { aim: 'largest', answer: answer([10, 20], 5) },
      { aim: 'use-soonest', answer: answer([10.01, 20], 5.1) },
      { aim: 'balanced', answer: answer([5, 20], 5) },
    ])
    expect(choices.map(({ aims }) => aims)).toEqual([['largest', 'use-soonest'], ['balanced']])
  })
})
