import { describe, expect, it } from 'vitest'
import { KINDS, useOf, USES, usualOf } from './uses'

describe('what compost is used for', () => {
  it('is asked whole, with what is usual to begin with', () => {
    for (const kind of KINDS) {
      const use = useOf(kind, usualOf(kind))!
      expect(use.kind).toBe(kind)
      expect(Object.keys(use)).toHaveLength(USES[kind].length + 1)
    }
  })

  it('is not asked while something is not said', () => {
    expect(useOf('topdress', { area_m2: 40, depth_cm: null })).toBeNull()
    expect(useOf('mix', { volume_l: 100, compost_parts: 1, other_parts: 0 })).toEqual({
      kind: 'mix',
      volume_l: 100,
      compost_parts: 1,
      other_parts: 0,
    })
  })

  it('begins within what is taken', () => {
    for (const kind of KINDS)
      for (const { usual, min, max } of USES[kind]) expect(usual >= min && usual <= max).toBe(true)
  })
})
