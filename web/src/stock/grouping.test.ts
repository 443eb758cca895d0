import { describe, expect, it } from 'vitest'
import { grouped, sifted } from './grouping'

const lot = (name: string, days_left: number | null, amount = 2) => ({ name, days_left, amount })
const LOTS = [lot('Barley straw', null), lot('Maíz stover', null), lot('Scraps', 1), lot('Leaves', 20, 0)]
const names = (one: { name: string }) => [one.name]

describe('a long stock', () => {
  it('is sifted by all words, in any order and without accents', () => {
    expect(sifted(LOTS, 'straw bar', names).map((one) => one.name)).toEqual(['Barley straw'])
    expect(sifted(LOTS, 'maiz', names)).toHaveLength(1)
    expect(sifted(LOTS, '  ', names)).toHaveLength(4)
    expect(sifted(LOTS, 'cow', names)).toEqual([])
  })

  it('stands in groups by how long it keeps, and loses no lot', () => {
    const groups = grouped(LOTS, 'keeps', () => 'brown')
    expect(groups.map(({ key, lots }) => [key, lots.length])).toEqual([
      ['soon', 1],
      ['lasts', 2],
      ['gone', 1],
    ])
  })

  it('keeps a lot of a kind that it does not know', () => {
    expect(grouped(LOTS, 'kind', () => undefined)[0]).toMatchObject({ key: 'other', lots: LOTS })
    expect(grouped([], 'none', () => undefined)).toEqual([])
  })
})
