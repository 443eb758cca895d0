/** Where a figure of a material lies on its scale, from 0 to 1. */

export type RangeFigure = 'moisture_pct' | 'n_pct' | 'c_n' | 'density_kg_l' | 'ash_pct' | 'settle'

/** The ends of each scale. Ratios and densities span decades, so they run by their logarithm. */
const SCALES: Record<RangeFigure, { low: number; high: number; isLog: boolean }> = {
  moisture_pct: { low: 0, high: 100, isLog: false },
  n_pct: { low: 0.05, high: 20, isLog: true },
  c_n: { low: 3, high: 800, isLog: true },
  density_kg_l: { low: 0.02, high: 1.6, isLog: true },
  ash_pct: { low: 0, high: 100, isLog: false },
  settle: { low: 0, high: 1, isLog: false },
}

export function placeOf(figure: RangeFigure, value: number): number {
  const { low, high, isLog } = SCALES[figure]
  const at = isLog
    ? Math.log(Math.max(value, low) / low) / Math.log(high / low)
    : (value - low) / (high - low)
  return Math.min(1, Math.max(0, at))
}
