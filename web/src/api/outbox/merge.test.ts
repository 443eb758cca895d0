import { expect, test } from 'vitest'
import { alike, merge } from './merge'

const base = { label: null, amount: 5, price: 2, own: { c_n: 30 } }

test('what only one of two changed is as that one left it', () => {
  const mine = { ...base, label: 'From the ridge' }
  const theirs = { ...base, amount: 3 }
  expect(merge(base, mine, theirs)).toEqual({ fields: { ...mine, amount: 3 }, clash: [] })
})

test('what both changed alike is no matter, what each changed otherwise is named', () => {
  const mine = { ...base, amount: 4, price: 3, own: { c_n: 40 } }
  const theirs = { ...base, amount: 3, price: 3, own: { c_n: 25 } }
  const { fields, clash } = merge(base, mine, theirs)
  expect(clash).toEqual(['amount', 'own'])
  expect(fields.price).toBe(3)
})

test('nothing and left out are the same, and so is another order of names', () => {
  expect(alike(undefined, null)).toBe(true)
  expect(alike({ a: 1, b: null, c: [2, { d: 3, e: undefined }] }, { c: [2, { d: 3 }], a: 1 })).toBe(true)
  expect(alike([1, 2], [2, 1])).toBe(false)
  expect(merge({ ...base, label: undefined }, base, base)).toEqual({ fields: base, clash: [] })
})

test('a field that the record has by now and nobody knew of stays', () => {
  expect(merge({ a: 1 }, { a: 2 }, { a: 1, later: true }).fields).toEqual({ a: 2, later: true })
})
