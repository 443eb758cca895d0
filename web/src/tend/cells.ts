import type { HeatDayCell } from '@/api/client'

/** Weeks of a row of day cells, counted from the day the heap was built. */
export function weeksOf(days: readonly HeatDayCell[]): { nth: number; days: HeatDayCell[] }[] {
  const weeks = []
  for (let at = 0; at < days.length; at += 7) weeks.push({ nth: at / 7 + 1, days: days.slice(at, at + 7) })
  return weeks
}
