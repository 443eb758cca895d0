/** A year at a site as a drawing: the daily swing around the mean, and the rain. */

export interface YearMonth {
  mean_c: number
  swing_c: number
  rain_mm: number
}

export interface YearDrawing {
  centres: number[]
  mean: string
  band: string
  rain: { x: number; y: number; width: number; height: number }[]
}

const LEFT = 8
const STEP = 404 / 12
const TOP = 6
const FLOOR = 98

export function drawYear(months: YearMonth[]): YearDrawing {
  const centres = months.map((_, index) => LEFT + STEP * (index + 0.5))
  const warmest = Math.max(...months.map((one) => one.mean_c + one.swing_c))
  const coldest = Math.min(...months.map((one) => one.mean_c - one.swing_c))
  const room = Math.max(1, warmest - coldest)
  const up = (celsius: number) => round(FLOOR - 8 - ((celsius - coldest) / room) * (FLOOR - 8 - TOP))
  const wettest = Math.max(50, ...months.map((one) => one.rain_mm))
  const line = (of: (month: YearMonth) => number) =>
    months.map((month, index) => `${round(centres[index]!)} ${up(of(month))}`)
  const high = line((one) => one.mean_c + one.swing_c)
  const low = line((one) => one.mean_c - one.swing_c).reverse()
  return {
    centres,
    mean: `M${line((one) => one.mean_c).join('L')}`,
    band: `M${[...high, ...low].join('L')}Z`,
    rain: months.map((one, index) => {
      const height = round((one.rain_mm / wettest) * (FLOOR - TOP) * 0.8)
      return { x: round(centres[index]! - STEP * 0.3), y: FLOOR - height, width: round(STEP * 0.6), height }
    }),
  }
}

const round = (value: number) => Math.round(value * 10) / 10
