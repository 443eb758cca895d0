import { expect, test } from 'vitest'
import type { BatchPart } from '@/api/client'
import { lot } from '@/testing/samples'
import { shoppingOf } from './shopping'

const held = lot({ amount: 10 })
const straw = (amount: number) =>
  ({
    lot_id: held.id,
    material: held.material,
    amount,
    unit: held.unit,
    measure_id: held.measure_id,
  }) as BatchPart
const dung = {
  lot_id: null,
  material: 'sheep-manure',
  amount: 2,
  unit: 'measure',
  measure_id: 'barrow',
} as BatchPart

test('what several batches take of one lot is held against it once', () => {
  const list = shoppingOf([{ items: [straw(6), dung] }, { items: [straw(7)] }], [held])
  expect(list.map(({ material, amount, missing }) => [material, amount, missing])).toEqual([
    ['barley-straw', 13, 3],
    ['sheep-manure', 2, 2],
  ])
})

test('a batch that has taken its amounts needs nothing more', () => {
  expect(shoppingOf([{ items: [straw(6)], taken_at: '2026-03-14T08:00:00Z' }], [held])).toEqual([])
})
