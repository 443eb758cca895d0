import { linear, logarithmic } from '@/kit/scale'
import type { MixAnswer } from '@/api/client'

/** The part of the field in view: moisture across in percent, C:N up. */
export interface View {
  moisture: [number, number]
  ratio: [number, number]
}

export interface Place {
  moisture_pct: number
  c_n: number
}

export interface Frame {
  left: number
  top: number
  width: number
  height: number
}

type Edges = readonly [number, number]

/** A window in the field. */
export interface FieldWindow {
  moisture: Edges
  ratio: Edges
}

/** The usual windows of a mix, as they are drawn: aimed for, and still working. */
export const AIM: FieldWindow = { moisture: [50, 60], ratio: [25, 30] }
export const WORKS: FieldWindow = { moisture: [40, 65], ratio: [20, 40] }

/** The windows that a mix was judged by; the usual ones while there is none. */
export function windowsOf(mix: Pick<MixAnswer, 'windows'> | null | undefined): {
  aim: FieldWindow
  works: FieldWindow
} {
  if (!mix) return { aim: AIM, works: WORKS }
  const { c_n, moisture_pct, workable_c_n, workable_moisture_pct } = mix.windows
  const edges = ([low, high]: number[]): Edges => [low ?? 0, high ?? 0]
  return {
    aim: { moisture: edges(moisture_pct), ratio: edges(c_n) },
    works: { moisture: edges(workable_moisture_pct), ratio: edges(workable_c_n) },
  }
}

const RATIO_TICKS = [5, 7, 10, 15, 20, 25, 30, 40, 60, 100, 150, 200, 300, 400, 600, 1000]

/** All that is on the bench in view, and always the whole window. */
export function wholeView(places: Place[]): View {
  const ratios = places.map((place) => place.c_n).filter((c_n) => c_n > 0)
  return {
    moisture: [0, 100],
    ratio: [
      Math.max(2, Math.min(8, ...ratios.map((c_n) => c_n * 0.8))),
      Math.max(110, ...ratios.map((c_n) => c_n * 1.3)),
    ],
  }
}

/** The window and the mix in view, close up. */
export function closeView(mix: Place | null, works: FieldWindow = WORKS): View {
  const moisture = mix ? [mix.moisture_pct] : []
  const ratio = mix ? [mix.c_n] : []
  const [dry, wet] = works.moisture
  const [low, high] = works.ratio
  return {
    moisture: [
      Math.min(dry - 7, ...moisture.map((m) => m - 5)),
      Math.max(wet + 7, ...moisture.map((m) => m + 5)),
    ],
    ratio: [
      Math.min(low * 0.8, ...ratio.map((c) => c * 0.85)),
      Math.max(high * 1.2, ...ratio.map((c) => c * 1.15)),
    ],
  }
}

export function scales(view: View, frame: Frame) {
  return {
    x: linear(view.moisture, [frame.left, frame.left + frame.width]),
    y: logarithmic(view.ratio, [frame.top + frame.height, frame.top]),
  }
}

export function ratioTicks(view: View, height: number): number[] {
  const inside = RATIO_TICKS.filter((tick) => tick >= view.ratio[0] && tick <= view.ratio[1])
  // Thinned until every number has room for itself.
  const perStep = (height * Math.log(1.3)) / Math.log(view.ratio[1] / view.ratio[0])
  return perStep > 22
    ? inside
    : inside.filter((tick) => [10, 20, 30, 40, 60, 100, 200, 400, 1000].includes(tick))
}

export function moistureTicks(view: View): number[] {
  const step = view.moisture[1] - view.moisture[0] > 60 ? 20 : 10
  const first = Math.ceil(view.moisture[0] / step) * step
  const ticks: number[] = []
  for (let tick = first; tick <= view.moisture[1]; tick += step) ticks.push(tick)
  return ticks
}

/** Radius of a lot's mark: its area follows the share of the mix it makes up. */
export function radius(kg: number, total: number): number {
  return total > 0 ? 9 + 9 * Math.sqrt(kg / total) : 9
}

/** A closed line through places; nothing where there are too few for one. */
export function outlinePath(places: readonly Place[], { x, y }: ReturnType<typeof scales>): string {
  if (places.length < 3) return ''
  const points = places.map(
    ({ moisture_pct, c_n }) => `${x(moisture_pct).toFixed(1)} ${y(Math.max(c_n, 0.5)).toFixed(1)}`,
  )
  return `M${points.join('L')}Z`
}
