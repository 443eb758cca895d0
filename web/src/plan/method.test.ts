import { describe, expect, it } from 'vitest'
import { heatOf, outlineOf, personPath } from './method'

const base = {
  volume_l: [1000, 2000],
  height_cm: [100, 150],
  pattern: ['brown', 'manure'],
  build: 'layers',
} as const
const SHAPES = ['box', 'ring', 'pile', 'windrow', 'drum', 'lying-drum', 'tower']

describe('the picture of a method', () => {
  it('stays in its frame whatever the shape, with a person to scale beside it', () => {
    for (const shape of SHAPES) {
      const drawn = outlineOf({ ...base, shapes: [shape] } as never)
      const numbers = drawn.heap.match(/-?\d+(\.\d+)?/g)!.map(Number)
      expect(Math.min(...numbers), shape).toBeGreaterThanOrEqual(0)
      expect(Math.max(...numbers), shape).toBeLessThanOrEqual(drawn.width)
      expect(drawn.person.head, shape).toBeGreaterThanOrEqual(0)
      expect(personPath(drawn.person)).not.toContain('NaN')
    }
  })

  it('draws a drum small and a pile large beside the person', () => {
    const tall = (shape: string, volume_l: number[], height_cm: number[]) => {
      const { person } = outlineOf({ ...base, shapes: [shape], volume_l, height_cm } as never)
      return person.foot - person.head
    }
    expect(tall('drum', [150, 220], [80, 95])).toBeGreaterThan(tall('pile', [2000, 30000], [120, 200]))
  })

  it('gives layers only to what is layered', () => {
    expect(outlineOf({ ...base, shapes: ['box'] } as never).layers.length).toBeGreaterThan(2)
    expect(outlineOf({ ...base, shapes: ['box'], build: 'mixed' } as never).layers).toEqual([])
  })

  it('shows the expected heat as a band over its days', () => {
    const drawn = heatOf(
      [
        { day: 3, core_c: [45, 60] },
        { day: 110, core_c: [20, 30] },
      ],
      320,
    )
    expect(drawn.band).toMatch(/^M.*Z$/)
    expect(drawn.ticks.map(({ day }) => day)).toEqual([0, 3, 7, 14, 28, 60])
    expect(drawn.hot).toBeLessThan(drawn.warmth[0]!.y)
  })
})
