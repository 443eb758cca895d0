import { describe, expect, it } from 'vitest'
import { placeLabels, spread, type Rect } from './labels'

const FRAME = { x: 0, y: 0, width: 400, height: 400 }

function crossing(a: Rect, b: Rect): boolean {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height
}

describe('labels beside marks', () => {
  it('never cover each other, even where marks crowd', () => {
    const marks = Array.from({ length: 14 }, (_, i) => ({
      x: 180 + (i % 4) * 18,
      y: 180 + Math.floor(i / 4) * 14,
      r: 10,
      text: `Material number ${i}`,
    }))
    const labels = placeLabels(marks, FRAME).filter((label) => label !== null)
    expect(labels.length).toBeGreaterThan(3)
    labels.forEach((one, i) =>
      labels.slice(i + 1).forEach((other) => expect(crossing(one, other)).toBe(false)),
    )
  })

  it('stay inside the frame at its edges', () => {
    for (const [x, y] of [
      [5, 5],
      [395, 5],
      [5, 395],
      [395, 395],
    ] as const) {
      const [label] = placeLabels([{ x, y, r: 8, text: 'Barley straw' }], FRAME)
      expect(label!.x).toBeGreaterThanOrEqual(-1)
      expect(label!.x + label!.width).toBeLessThanOrEqual(401)
    }
  })
})

describe('labels in a column', () => {
  it('keep their distance and their order', () => {
    const heights = spread([100, 102, 103, 300], 16, 0, 400)
    expect(heights[1]! - heights[0]!).toBeGreaterThanOrEqual(16)
    expect(heights[2]! - heights[1]!).toBeGreaterThanOrEqual(16)
    expect(heights[3]).toBe(300)
  })

  it('close up rather than leave the column', () => {
    const heights = spread(
      Array.from({ length: 50 }, () => 200),
      16,
      0,
      400,
    )
    expect(Math.min(...heights)).toBeGreaterThan(-0.001)
    expect(Math.max(...heights)).toBeLessThan(400.001)
  })
})
