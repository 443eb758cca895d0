import { expect, test } from 'vitest'
import type { BatchPart } from '@/api/client'
import { elsewhere } from './onTheBench'

test('what was counted in containers of another farm is said in litres, from no lot', () => {
  const part = {
    lot_id: 'l',
    material: 'wheat-straw',
    label: null,
    amount: 3,
    unit: 'measure',
    measure_id: 'm',
    measure_litres: 70,
  } as BatchPart
  expect(elsewhere(part)).toMatchObject({ lot_id: null, amount: 210, unit: 'litre', measure_id: null })
  const weighed = { ...part, unit: 'kg', measure_id: null, measure_litres: null } as BatchPart
  expect(elsewhere(weighed)).toMatchObject({ amount: 3, unit: 'kg' })
})
