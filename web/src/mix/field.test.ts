import { describe, expect, it } from 'vitest'
import { closeView, moistureTicks, radius, ratioTicks, scales, wholeView } from './field'

const FRAME = { left: 44, top: 10, width: 380, height: 470 }

describe('the balance field', () => {
  it('holds every lot and the window', () => {
    const view = wholeView([
      { moisture_pct: 12, c_n: 565 },
      { moisture_pct: 96, c_n: 4 },
    ])
    expect(view.ratio[0]).toBeLessThan(4)
    expect(view.ratio[1]).toBeGreaterThan(565)
    const { x, y } = scales(view, FRAME)
    expect(x(50)).toBe(44 + 190)
    expect(y(30)).toBeGreaterThan(FRAME.top)
    expect(y(20)).toBeGreaterThan(y(30))
  })

  it('keeps the mix in view when close', () => {
    const view = closeView({ moisture_pct: 90, c_n: 9 })
    expect(view.moisture[1]).toBeGreaterThan(90)
    expect(view.ratio[0]).toBeLessThan(9)
    expect(closeView(null).ratio).toEqual([16, 48])
  })

  it('thins its ticks where room is short', () => {
    const view = wholeView([])
    expect(ratioTicks(view, 150).length).toBeLessThan(ratioTicks(view, 900).length)
    expect(moistureTicks(view)).toEqual([0, 20, 40, 60, 80, 100])
  })

  it('draws more as more, and nothing without a fraction of nothing', () => {
    expect(radius(50, 100)).toBeGreaterThan(radius(10, 100))
    expect(radius(0, 0)).toBe(9)
  })
})
