// @vitest-environment happy-dom
import { expect, test } from 'vitest'
import { type Act, actOf } from '@/api/outbox/act'
import { lot } from '@/testing/samples'
import { withWaiting } from './withWaiting'

const straw = lot()
const done = (kind: Act['kind'], more: Partial<Act> = {}): Act =>
  actOf({ kind, of: straw.id, path: { id: straw.id }, says: '', ...more }, null)

test('what came and went without signal is counted, and weighs in proportion', () => {
  const came = done('lot-happened', { body: { kind: 'delivered', amount: straw.amount } })
  expect(withWaiting([straw], [came])[0]).toMatchObject({ amount: 2 * straw.amount, kg: 2 * straw.kg })
  const used = done('lot-happened', { body: { kind: 'used', amount: straw.amount } })
  expect(withWaiting([straw], [used])[0]).toMatchObject({ amount: 0, kg: 0 })
  const undone = done('lot-unhappened', { shows: -1 })
  expect(withWaiting([straw], [undone])[0]?.amount).toBe(straw.amount + 1)
})

test('what was put right is so, and what was taken off is gone; all else stays as it is', () => {
  const other = { ...straw, id: 'other' }
  const renamed = done('lot-change', {
    body: {
      lot: {
        material: straw.material,
        amount: straw.amount,
        unit: straw.unit,
        measure_id: straw.measure_id,
        label: 'Ridge',
      },
    },
  })
  expect(withWaiting([straw, other], [renamed]).map(({ label }) => label)).toEqual(['Ridge', straw.label])
  expect(withWaiting([straw, other], [done('lot-remove')])).toEqual([other])
})
