import type { HeatDayCell } from '@/api/client'

/** So many of the last weeks are always in sight. */
const LAST = 3
/** As many weeks are shown whole. */
const MOST = 8

/** The weeks that tell something: all of a few, else those with a hot run or a turn, and the last. */
export function telling(weeks: ReturnType<typeof weeksOf>) {
  if (weeks.length <= MOST) return weeks
  return weeks.filter(
    ({ days }, at) => at >= weeks.length - LAST || days.some(({ in_run, turned }) => in_run || turned),
  )
}

/** Weeks of a row of day cells, counted from the day the heap was built. */
export function weeksOf(days: readonly HeatDayCell[]): { nth: number; days: HeatDayCell[] }[] {
  const weeks = []
  for (let at = 0; at < days.length; at += 7) weeks.push({ nth: at / 7 + 1, days: days.slice(at, at + 7) })
  return weeks
}
