import { describe, expect, it } from 'vitest'
import { contrast, heatColour, heatStops } from './ramp'

describe('the colours of heat', () => {
  it('run from slate to ember without a jump', () => {
    expect(heatColour(-10)).toBe(heatStops()[0]!.colour)
    expect(heatColour(90)).toBe(heatStops().at(-1)!.colour)
    const parts = (celsius: number) => heatColour(celsius).match(/\d+/g)!.map(Number)
    for (let celsius = 0; celsius < 80; celsius += 1) {
      const steps = parts(celsius).map((part, at) => Math.abs(part - parts(celsius + 1)[at]!))
      expect(Math.max(...steps)).toBeLessThan(9)
    }
  })

  it('can be written on', () => {
    for (let celsius = 0; celsius < 80; celsius += 1) expect(contrast(celsius)).toBeGreaterThan(4.5)
  })
})
