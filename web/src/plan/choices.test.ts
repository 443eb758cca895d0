import { describe, expect, it } from 'vitest'
import type { FormulateAnswer, FormulateRequest, Lot, Measure } from '@/api/client'
import {
  additionRecipe,
  aimsFor,
  alikeIn,
  amountsOf,
  type Asked,
  distinct,
  limitsOf,
  namesOf,
  offersOf,
  recipeOf,
  requestOf,
  urgencyOf,
} from './choices'

const lot = (id: number, more: object) =>
  ({
    id,
    material: 'barley-straw',
    amount: 4,
    unit: 'measure',
    measure_id: 'barrow',
    kg: 14,
    own: {},
    tests: [],
    days_left: null,
    must_not_go_in: false,
    figures: { density_kg_l: { value: 0.5, origin: 'book' } },
    ...more,
  }) as unknown as Lot
const barrow = { id: 'barrow', litres: 70 } as Measure
const answer = (kg: number[], water_l: number, counts: number[] = []) =>
  ({
    items: kg.map((one, index) => ({ kg: one, count: counts[index] })),
    water_l,
  }) as unknown as FormulateAnswer

const plain = {
  size: [500, 2000],
  step: 'whole',
  isCautious: false,
  pins: {},
  caps: [],
  raised: [],
  mostWater: null,
  known: [],
} satisfies Asked
const request = {} as FormulateRequest

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
    const request = requestOf(offers, { ...plain, bucket: barrow })
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
      { aim: 'largest', request, answer: answer([10, 20], 5) },
      { aim: 'use-soonest', request, answer: answer([10.01, 20], 5.1) },
      { aim: 'balanced', request, answer: answer([5, 20], 5) },
    ])
    expect(choices.map(({ aims }) => aims)).toEqual([['largest', 'use-soonest'], ['balanced']])
  })

  it('pin amounts in kilograms, and leave lots out', () => {
    const lots = [lot(1, {}), lot(2, {}), lot(3, {}), lot(4, {})]
    const offers = offersOf(lots, [barrow], () => 1)
    const pins: Asked['pins'] = {
      1: { kind: 'all', amount: 4 },
      2: { kind: 'exact', amount: 2 },
      3: { kind: 'least', amount: 1 },
      4: { kind: 'out', amount: 4 },
    }
    const { stock } = requestOf(offers, { ...plain, pins })
    expect(stock[0]!.kg_fixed).toBeCloseTo(14, 9)
    expect(stock[1]!.kg_fixed).toBeCloseTo(7, 9)
    expect(stock[2]!.kg_min).toBeCloseTo(3.5, 9)
    expect(stock[3]!.kg_fixed).toBe(0)
    // More than there is, after some was taken: all of it.
    const over = requestOf(offers, { ...plain, pins: { 1: { kind: 'exact', amount: 9 } } })
    expect(over.stock[0]!.kg_fixed).toBeCloseTo(14, 9)
  })

  it('say what was weighed in kilograms and what was counted in measures', () => {
    const lots = [
      lot(1, {}),
      lot(2, { unit: 'kg', measure_id: null }),
      lot(3, { unit: 'litre', measure_id: null, litres: 9 }),
    ]
    const { stock } = requestOf(
      offersOf(lots, [barrow], () => 1),
      plain,
    )
    expect(stock[0]).toMatchObject({ amount: 4 })
    expect(stock[1]).toMatchObject({ kg_available: 14 })
    expect(stock[2]).toMatchObject({ litres_available: 9 })
  })

  it('ask for the cheapest only where something has a price', () => {
    const of = (price: number | null) => offersOf([lot(1, { price })], [barrow], () => 1)
    expect(aimsFor(of(null))).not.toContain('cheapest')
    expect(aimsFor(of(2))).toContain('cheapest')
    // Two for one of four measures that weigh 14 kg together.
    expect(requestOf(of(2), plain).stock[0]!.cost_per_kg).toBeCloseTo(8 / 14)
  })

  it('become a recipe of what is in them', () => {
    const offers = offersOf([lot(1, {}), lot(2, { label: 'Chaff' })], [barrow], () => 1)
    const asked = requestOf(offers, plain)
    const recipe = recipeOf(answer([0, 7], 3), asked)
    expect(recipe.items).toMatchObject([{ material: 'barley-straw', kg: 7 }])
    // Counted in the answer, it stays counted: its weight is as sure as its density.
    const counted = recipeOf(answer([0, 7], 3, [0, 2]), asked)
    expect(counted.items).toMatchObject([{ amount: 2, measure: 'measure-barrow' }])
    expect(counted.items[0]).not.toHaveProperty('kg')
    const windows = { c_n: [30, 45], moisture_pct: [55, 65], free_air_space_min_pct: 40 }
    const tower = requestOf(offers, { ...plain, windows })
    expect(recipeOf(answer([0, 7], 3), tower).target).toMatchObject(windows)
    const nameOf = (material: string, label?: string | null) => label ?? material
    expect(namesOf(answer([0, 7], 3), offers, nameOf)).toEqual(['Chaff'])
    const addition = { material: 'goat-manure', mix_kg: [5, 0, 9], water_l: 2 } as never
    const with_goats = additionRecipe(addition, asked, offers, nameOf)
    expect(with_goats.recipe.items.map(({ kg }) => kg)).toEqual([5, 9])
    expect(with_goats.names).toEqual(['barley-straw', 'goat-manure'])
  })

  it('say what is used up, worth most first, and what holds the rest back', () => {
    const offers = offersOf([lot(1, {}), lot(2, {}), lot(3, {}), lot(4, {})], [barrow], () => 1)
    const given = {
      binding: [
        { code: 'used-up', item: 0 },
        { code: 'used-up', item: 1 },
      ],
      items: [
        { worth_of_more: 5 },
        { worth_of_more: 90 },
        { worth_of_more: 0, held_back: ['c-n-high', 'wet'] },
        { worth_of_more: 0, held_back: ['c-n-high'] },
      ],
    } as unknown as FormulateAnswer
    const limits = limitsOf(given, offers, { 4: { kind: 'exact', amount: 1 } })
    expect(limits.usedUp.map(({ offer, worth }) => [offer.lot.id, worth])).toEqual([
      [2, 90],
      [1, 5],
    ])
    expect(limits.heldBack.map(({ by, offers }) => [by, offers.length])).toEqual([['c-n-high', 1]])
  })

  it('tell once what all of them hold alike, and nothing of one alone', () => {
    const offers = offersOf([lot(1, {}), lot(2, {}), lot(3, {})], [barrow], () => 1)
    const one = { answer: answer([10, 20, 0], 5, [1, 2, 0]) }
    const other = { answer: answer([10, 30, 0], 5, [1, 3, 0]) }
    expect(alikeIn([one, other], offers).map(({ offer, amount }) => [offer.lot.id, amount])).toEqual([[1, 1]])
    expect(alikeIn([one], offers)).toEqual([])
  })
})
