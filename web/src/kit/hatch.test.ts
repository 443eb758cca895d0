import { describe, expect, it } from 'vitest'
import { familyOf, hatches, hatchId } from './hatch'

const straw = (id: string) => ({ id, kind: 'brown', group: 'crop residue', particle: 'medium' }) as const

describe('the sign of a material', () => {
  it('comes from what it is', () => {
    expect(familyOf(straw('barley-straw'))).toBe('straw')
    expect(familyOf({ id: 'x', kind: 'manure', group: 'animal manure', particle: 'medium' })).toBe('pellet')
    expect(familyOf({ id: 'x', kind: 'bulking', group: 'woody', particle: 'coarse' })).toBe('wood')
  })

  it('differs between neighbours of one family, and stays with each', () => {
    const signs = hatches([straw('a'), straw('b'), straw('c')])
    expect(new Set(signs.values()).size).toBe(3)
    expect(hatches([straw('a')]).get('a')).toBe(signs.get('a'))
    expect(signs.get('a')).toBe(hatchId('straw', 0))
  })
})
