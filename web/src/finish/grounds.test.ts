import { expect, test } from 'vitest'
import { GROUND_KINDS, isCounted, useAt } from './grounds'

test('each place has its usual use, as large as it is', () => {
  expect(useAt({ kind: 'bed', area_m2: 12, count: null })).toEqual({
    name: 'topdress',
    sizes: { area_m2: 12, depth_cm: 2 },
  })
  expect(useAt({ kind: 'lawn', area_m2: 80, count: null }).sizes.depth_cm).toBe(0.5)
  expect(useAt({ kind: 'trees', area_m2: null, count: 30 }).sizes.count).toBe(30)
  expect(useAt({ kind: 'nursery', area_m2: null, count: null }).name).toBe('mix')
  expect(GROUND_KINDS.filter(isCounted)).toEqual(['pits', 'trees'])
})
