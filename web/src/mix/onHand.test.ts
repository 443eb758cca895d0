import { expect, test } from 'vitest'
import { lot } from '@/testing/samples'
import { shortOf } from './onHand'

const held = lot({ amount: 4, kg: 80 })
const part = (amount: number, changes = {}) => ({
  lot_id: held.id,
  amount,
  unit: held.unit,
  measure_id: held.measure_id,
  ...changes,
})

test('a part within its lot lacks nothing, one beyond it so much', () => {
  expect(shortOf(part(4), [held])).toBeNull()
  expect(shortOf(part(6), [held])).toMatchObject({ is: 'less', missing: 2 })
})

test('a lot that was removed is gone, whatever was taken of it', () => {
  expect(shortOf(part(1), [])).toEqual({ is: 'gone', missing: 1 })
})

test('a part said in another unit is held against the weight', () => {
  const inKg = part(120, { unit: 'kg', measure_id: null })
  expect(shortOf(inKg, [held], 120)).toMatchObject({ is: 'less', missing: 40 })
  expect(shortOf(inKg, [held], 60)).toBeNull()
})

test('what belongs to no lot, or is not known yet, is not judged', () => {
  expect(shortOf(part(9, { lot_id: null }), [held])).toBeNull()
  expect(shortOf(part(9), undefined)).toBeNull()
})
