import { describe, expect, it } from 'vitest'
import type { HeapShape, Method } from '@/api/client'
import { SHAPES, heapFor, reshaped, sidesOf } from './shape'

const BAY: HeapShape = { shape: 'box', width_cm: 110, length_cm: 140, height_cm: 120 }

describe('the shape of a heap', () => {
  it.each(SHAPES)('has all sides of a %s and no others', (shape) => {
    const made = reshaped(shape, [])
    expect(Object.keys(made).sort()).toEqual(['shape', ...sidesOf(made).map(({ side }) => side)].sort())
    for (const { value } of sidesOf(made)) expect(value).toBeGreaterThan(0)
  })

  it('is one that holds the mix, whatever size the last one had', () => {
    const ridge: HeapShape = { shape: 'windrow', length_cm: 300, width_cm: 200, height_cm: 100 }
    expect(reshaped('windrow', [BAY, ridge])).toBe(ridge)
    const drums = { shapes: ['windrow'], usual: [{ ...ridge, length_cm: 900 }] } as unknown as Method
    expect(heapFor(drums, BAY, [BAY, ridge])).toBe(ridge)
  })

  it('follows the method only where the method is not built so', () => {
    const drums = {
      shapes: ['drum'],
      usual: [{ shape: 'drum', diameter_cm: 57, height_cm: 85 }],
    } as unknown as Method
    expect(heapFor(drums, BAY)).toEqual(drums.usual[0])
    expect(heapFor({ ...drums, shapes: ['box'] }, BAY)).toBe(BAY)
    expect(heapFor(null, BAY)).toBe(BAY)
  })
})
