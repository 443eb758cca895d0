import { describe, expect, it } from 'vitest'
import { drawVessel } from './vessel'

const corners = (path: string) => path.match(/-?\d+(\.\d+)?/g)!.map(Number)

describe('the outline of a container', () => {
  it('keeps its proportions', () => {
    const [left, rim, foot, floor, footEnd, right] = corners(
      drawVessel('cone', { top_cm: 40, bottom_cm: 20, height_cm: 20 }, 1).outline,
    ) as [number, number, number, number, number, number]
    expect((right - left) / (footEnd - foot)).toBeCloseTo(2, 1)
    expect((right - left) / (floor - rim)).toBeCloseTo(2, 1)
  })

  it('is drawn before anything is typed, and for impossible sides', () => {
    for (const sides of [{}, { across_cm: 0, height_cm: -4 }, { across_cm: null }])
      expect(drawVessel('cylinder', sides, 1).outline).not.toMatch(/NaN|Infinity/)
  })

  it('shows a heap and the fillings counted in', () => {
    expect(drawVessel('litres', {}, 1).heap).toBe('')
    expect(drawVessel('litres', {}, 1.3).heap).not.toBe('')
    expect(drawVessel('counted', { count: 6 }, 1).marks.match(/M/g)).toHaveLength(5)
    expect(drawVessel('counted', { count: 600 }, 1).marks).toBe('')
  })
})
