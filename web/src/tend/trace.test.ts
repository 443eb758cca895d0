import { describe, expect, it } from 'vitest'
import type { Trace } from '@/api/client'
import { asked, days, draw, expectedAt, MARGIN, moved, readAt, ticks, within, zoomed } from './trace'

const HOUR = 3_600_000
const DAY = 24 * HOUR
const trace = (more: Partial<Trace> = {}): Trace => ({
  built_at: '1970-01-01T00:00:00Z',
  now_ms: 10 * DAY,
  span_ms: [0, 24 * DAY],
  told_ms: [0, 24 * DAY],
  lines: [
    {
      place: 'core',
      points: [
        [0, 15],
        [2 * DAY, 61],
        [9 * DAY, 40],
      ],
      readings: 3,
    },
  ],
  sticks: [],
  faulty: [],
  faulty_count: 0,
  band: [
    [0, 5, 25],
    [10 * DAY, 30, 46],
  ],
  ahead: [
    [10 * DAY, 30, 46],
    [24 * DAY, 20, 36],
  ],
  air: [],
  has_air: false,
  events: [],
  runs: [],
  is_simulated: false,
  ...more,
})

describe('a trace drawn', () => {
  it('lies within its frame, hotter above', () => {
    const drawn = draw(trace(), [0, 24 * DAY], 600, 300)
    const [cold, hot] = drawn.lines[0]!.dots
    expect(hot!.y).toBeLessThan(cold!.y)
    for (const dot of drawn.lines[0]!.dots) {
      expect(dot.x).toBeGreaterThanOrEqual(MARGIN.left)
      expect(dot.x).toBeLessThanOrEqual(600 - MARGIN.right)
      expect(dot.y).toBeGreaterThanOrEqual(MARGIN.top)
    }
    expect(drawn.now).toBeCloseTo(drawn.x(10 * DAY))
  })

  it('puts signs that would lie over each other together', () => {
    const events = ['turn', 'water', 'smell', 'turn'].map((kind, nth) => ({
      id: `${nth}`,
      at_ms: DAY + nth * 60_000,
      kind: kind as 'turn',
    }))
    const drawn = draw(
      trace({ events: [...events, { id: 'x', at_ms: 9 * DAY, kind: 'turn' }] }),
      [0, 24 * DAY],
      600,
      300,
    )
    expect(drawn.signs.map(({ kinds, more }) => [kinds, more])).toEqual([
      [['turn', 'water'], 1],
      [['turn'], 0],
    ])
  })

  it('shades what was hot without a gap, as far as it is in sight', () => {
    const runs = [{ from_ms: DAY, to_ms: 5 * DAY, hours: 96 }]
    const drawn = draw(trace({ runs }), [3 * DAY, 4 * DAY], 600, 300)
    expect(drawn.runs[0]!.x).toBeCloseTo(MARGIN.left)
    expect(drawn.runs[0]!.width).toBeCloseTo(600 - MARGIN.left - MARGIN.right)
  })

  it('writes as many days as there is room for, and hours when near', () => {
    expect(ticks(0, [0, 24 * DAY], 600).map(({ day }) => day)).toEqual([0, 4, 8, 12, 16, 20, 24])
    expect(ticks(0, [0, 24 * DAY], 328).map(({ day }) => day)).toEqual([0, 4, 8, 12, 16, 20, 24])
    expect(ticks(0, [0, 40 * DAY], 328).map(({ day }) => day)).toEqual([0, 7, 14, 21, 28, 35])
    expect(ticks(0, [0, DAY], 600)[1]).toEqual({ ms: 3 * HOUR, day: 0, hour: 3 })
  })

  it('moves and zooms within the whole', () => {
    const whole = [0, 24 * DAY] as const
    const near = zoomed(whole, whole, 4, 0)
    expect(near).toEqual([0, 6 * DAY])
    expect(moved(near, whole, -1)).toEqual(near)
    expect(moved(near, whole, 0.5)).toEqual([3 * DAY, 9 * DAY])
    expect(moved(near, whole, 9)).toEqual([18 * DAY, 24 * DAY])
    expect(within([0, 1], whole)).toEqual([0, 3 * HOUR])
    expect(zoomed(near, whole, 0.01)).toEqual(whole)
  })

  it('asks for more than is in sight, and for the same while it is panned a little', () => {
    const whole = [0, 32 * DAY] as const
    expect(asked(whole, whole)).toBeNull()
    const one = asked([4 * DAY, 8 * DAY], whole)!
    expect(one.from_ms).toBeLessThan(4 * DAY)
    expect(one.to_ms).toBeGreaterThan(8 * DAY)
    expect(asked([4.5 * DAY, 8.5 * DAY], whole)).toEqual(one)
  })

  it('is a table of days, the newest on top', () => {
    const events = [{ id: 'x', at_ms: 2 * DAY + HOUR, kind: 'turn' as const }]
    const table = days(trace({ events }))
    expect(table.map(({ day, high, done }) => [day, high, done])).toEqual([
      [9, 40, []],
      [2, 61, ['turn']],
      [0, 15, []],
    ])
  })

  it('tells what was read and expected at a time', () => {
    expect(readAt(trace(), 2 * DAY + HOUR)).toEqual([{ place: 'core', celsius: 61 }])
    expect(readAt(trace(), 5 * DAY)).toEqual([])
    expect(expectedAt(trace(), 5 * DAY)).toEqual([5, 25])
    expect(expectedAt(trace(), 30 * DAY)).toEqual([20, 36])
  })
})
