import { describe, expect, it } from 'vitest'
import type { BatchPart, Lot } from '@/api/client'
import { newFigures } from './news'

const dried = { figure: 'moisture_pct' as const, value: 61, test: 'drying', on: '2026-03-14' }
const lot = (own: object, tests: object[]) =>
  ({ id: 1, material: 'sheep-manure', own, tests }) as unknown as Lot
const part = (own: object, tests?: object[]) =>
  ({ lot_id: 1, material: 'sheep-manure', own, tests }) as unknown as BatchPart

describe('news of figures', () => {
  it('is what a test has found since', () => {
    const found = newFigures([part({})], [lot({}, [dried])])
    expect([...found]).toEqual([[0, { own: {}, tests: [dried] }]])
  })

  it('is none when nothing has changed, however it is written', () => {
    expect(newFigures([part({ moisture_pct: null })], [lot({}, [])]).size).toBe(0)
    expect(
      newFigures([part({ c_n: 9, n_pct: 2 }, [dried])], [lot({ n_pct: 2, c_n: 9 }, [{ ...dried }])]).size,
    ).toBe(0)
  })

  it('is none of a lot that is gone or has become something else', () => {
    expect(newFigures([part({})], []).size).toBe(0)
    const other = { ...lot({}, [dried]), material: 'straw' } as Lot
    expect(newFigures([part({})], [other]).size).toBe(0)
  })
})
