import { describe, expect, it } from 'vitest'
import type { HeatDayCell } from '@/api/client'
import { weeksOf } from './cells'

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
})
