import { describe, expect, it } from 'vitest'
import type { HeatDayCell } from '@/api/client'
import { telling, weeksOf } from './cells'

const days = (count: number): HeatDayCell[] =>
  Array.from({ length: count }, (_, nth) => ({
    on: `2026-03-${String(nth + 1).padStart(2, '0')}`,
    hottest_c: 50 + nth,
    in_run: false,
    turned: false,
  }))

describe('weeks of day cells', () => {
  it('holds every day once, seven a week, the last week as long as it is', () => {
    const weeks = weeksOf(days(16))
    expect(weeks.map(({ nth, days }) => [nth, days.length])).toEqual([
      [1, 7],
      [2, 7],
      [3, 2],
    ])
    expect(weeks.flatMap(({ days }) => days.map(({ on }) => on))).toEqual(days(16).map(({ on }) => on))
    expect(weeksOf([])).toEqual([])
  })

  it('leaves out of a long life what tells nothing', () => {
    const long = weeksOf(days(140).map((day, nth) => ({ ...day, in_run: nth < 10, turned: nth === 30 })))
    expect(telling(long).map(({ nth }) => nth)).toEqual([1, 2, 5, 18, 19, 20])
    expect(telling(long.slice(0, 8))).toHaveLength(8)
  })
})
