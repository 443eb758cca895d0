import { describe, expect, it } from 'vitest'
import { ASKED, KINDS, RING_DEEP_CM, RING_FROM_CM, ringOut, TREE_AGES, useOf, USES, usualOf } from './uses'

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

  it('is asked by every name in one way', () => {
    expect(new Set(ASKED.map(({ kind }) => kind))).toEqual(new Set(KINDS))
    for (const { kind, sizes } of ASKED)
      expect(Object.keys(sizes ?? usualOf(kind)).sort()).toEqual(Object.keys(usualOf(kind)).sort())
  })

  it('lies around a tree in a ring that holds it', () => {
    for (const { litres } of TREE_AGES) {
      const ground = Math.PI * (ringOut(litres) ** 2 - RING_FROM_CM ** 2)
      expect((ground * RING_DEEP_CM) / 1000).toBeCloseTo(litres, 9)
    }
  })

  it('begins within what is taken', () => {
    for (const kind of KINDS)
      for (const { usual, min, max } of USES[kind]) expect(usual >= min && usual <= max).toBe(true)
  })
})
