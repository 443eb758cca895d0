import { describe, expect, it } from 'vitest'
import { familyOf, hatchOf } from './hatch'

const straw = (id: string) => ({ id, kind: 'brown', group: 'crop residue', particle: 'medium' }) as const

describe('the sign of a material', () => {
  it('comes from what it is', () => {
    expect(familyOf(straw('barley-straw'))).toBe('straw')
    expect(familyOf({ id: 'x', kind: 'manure', group: 'animal manure', particle: 'medium' })).toBe('pellet')
    expect(familyOf({ id: 'x', kind: 'bulking', group: 'woody', particle: 'coarse' })).toBe('wood')
  })

  it('is for good: whatever else is known, it stays', () => {
    expect(hatchOf(straw('barley-straw'))).toBe('hatch-straw-1')
    expect(hatchOf(straw('wheat-straw'))).not.toBe(hatchOf(straw('barley-straw')))
    const own = straw('straw-from-the-terrace')
    expect(hatchOf(own)).toBe(hatchOf({ ...own }))
    expect(hatchOf(own)).toMatch(/^hatch-straw-[0-3]$/)
  })
})
