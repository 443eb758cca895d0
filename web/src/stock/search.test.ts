import { describe, expect, it } from 'vitest'
import { search } from './search'

const TABLE = [
  { id: 'barley-straw', name: 'Barley straw', name_es: 'Paja de cebada' },
  { id: 'maize-stover', name: 'Maize stover', name_es: 'Rastrojo de maíz' },
  { id: 'spent-oyster-substrate', name: 'Spent mushroom straw', name_es: 'Sustrato de hongos' },
]
const ids = (typed: string) => search(TABLE, typed).map(({ id }) => id)

describe('finding a material', () => {
  it('takes any part of a name, the beginning of one first', () => {
    expect(ids('straw')).toEqual(['barley-straw', 'spent-oyster-substrate'])
    expect(ids('sp')).toEqual(['spent-oyster-substrate'])
  })

  it('needs every word', () => {
    expect(ids('straw bar')).toEqual(['barley-straw'])
    expect(ids('straw maize')).toEqual([])
  })

  it('reads Spanish with or without accents', () => {
    expect(ids('maiz')).toEqual(['maize-stover'])
    expect(ids('maíz')).toEqual(['maize-stover'])
  })

  it('knows what people call it, and reads over one wrong letter', () => {
    const table = [
      ...TABLE,
      {
        id: 'layer-hen-manure',
        name: 'Laying hen manure',
        name_es: 'Gallinaza',
        names: ['chicken muck', 'straw hen'],
      },
    ]
    const found = (typed: string) => search(table, typed).map(({ id }) => id)
    expect(found('chicken muck')).toEqual(['layer-hen-manure'])
    expect(found('chiken muck')).toEqual(['layer-hen-manure'])
    expect(found('starw')).toContain('barley-straw')
    expect(found('stone')).toEqual([])
  })

  it('shows all when nothing is typed', () => {
    expect(ids('  ')).toHaveLength(3)
  })
})
