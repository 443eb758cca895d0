/** Pictures of the methods: the heap in outline, to scale, and how warm it should get. */
import { linear, rooted } from '@/kit/scale'
import { area, curveMonotoneX, line } from 'd3-shape'
import type { Method } from '@/api/client'

export interface Outline {
  /** The heap itself, closed. */
  heap: string
  /** What holds it: posts, mesh, drum, pallet. */
  holder: string[]
  /** What brings it air or water. */
  pipes: string[]
  /** Lines between its layers. */
  layers: string[]
  /** A person of 165 cm beside it. */
  person: { x: number; head: number; foot: number }
  width: number
  height: number
}

const PERSON_CM = 165
const GROUND = 8

/** How wide a heap of the usual volume and height stands, cm. */
function widthOf({ shapes, volume_l, height_cm }: Pick<Method, 'shapes' | 'volume_l' | 'height_cm'>): number {
  const litres = middle(volume_l)
  const height = middle(height_cm)
  const ground = (litres * 1000) / height
  switch (shapes[0]) {
    case 'ring':
    case 'drum':
    case 'tower':
      return Math.sqrt((ground * 4) / Math.PI)
    case 'lying-drum':
      return height
    case 'pile':
      // Sloping sides: the top is about half as wide as the foot.
      return Math.sqrt(ground) * 1.35
    default:
      return Math.sqrt(ground)
  }
}

const middle = ([low, high]: number[]) => ((low ?? 0) + (high ?? 0)) / 2

/** The outline of a method's usual heap in a frame, a person beside it for size. */
export function outlineOf(
  method: Pick<Method, 'shapes' | 'volume_l' | 'height_cm' | 'pattern' | 'build'>,
): Outline {
  const wide = widthOf(method)
  const high = middle(method.height_cm)
  const width = 300
  const height = 190
  const scale = Math.min(
    (height - GROUND - 10) / Math.max(PERSON_CM, high * 1.1),
    (width - 76) / (wide * 1.15),
  )
  const ground = height - GROUND
  const w = wide * scale
  const h = high * scale
  const left = 14 + (width - 70 - w) / 2
  const right = left + w
  const top = ground - h
  const mid = (left + right) / 2
  const shape = method.shapes[0] ?? 'pile'
  const holder: string[] = []
  const pipes: string[] = []
  let heap = `M${left} ${ground}V${top}H${right}V${ground}Z`
  let slope = 0

  if (shape === 'box') holder.push(`M${left} ${ground}V${top - 8}`, `M${right} ${ground}V${top - 8}`)
  if (shape === 'ring') {
    for (let y = ground - 10; y > top; y -= 14) holder.push(`M${left} ${y}H${right}`)
    pipes.push(`M${mid - 4} ${ground - 4}V${top - 12}M${mid + 4} ${ground - 4}V${top - 12}`)
  }
  if (shape === 'pile' || shape === 'windrow') {
    slope = w * 0.22
    heap = `M${left} ${ground}Q${left + slope * 0.4} ${top + h * 0.2} ${left + slope} ${top}H${right - slope}Q${right - slope * 0.4} ${top + h * 0.2} ${right} ${ground}Z`
    if (method.build === 'layers') pipes.push(`M${mid} ${ground - 6}L${mid + 6} ${top - 16}`)
  }
  if (shape === 'drum') {
    holder.push(`M${left - 3} ${top - 4}H${right + 3}`, `M${left} ${top - 4}V${ground}H${right}V${top - 4}`)
    for (const y of [0.3, 0.5, 0.7]) pipes.push(`M${left - 4} ${top + h * y}h4M${right} ${top + h * y}h4`)
  }
  if (shape === 'lying-drum') {
    const r = h / 2
    const cy = ground - r - 12
    heap = `M${mid - r * 0.98} ${cy - r * 0.2}A${r} ${r} 0 0 0 ${mid + r * 0.98} ${cy - r * 0.2}Z`
    holder.push(
      `M${mid - r} ${cy}A${r} ${r} 0 1 1 ${mid + r} ${cy}A${r} ${r} 0 1 1 ${mid - r} ${cy}`,
      `M${mid - r * 0.7} ${ground}L${mid} ${cy}L${mid + r * 0.7} ${ground}`,
    )
  }
  if (shape === 'tower') {
    holder.push(`M${left - 6} ${ground}H${right + 6}M${left - 6} ${ground - 5}H${right + 6}`)
    holder.push(`M${left} ${ground - 5}V${top - 4}M${right} ${ground - 5}V${top - 4}`)
    for (const part of [0.25, 0.5, 0.75]) {
      const x = left + w * part
      pipes.push(`M${x - 3} ${ground - 5}V${top - 10}M${x + 3} ${ground - 5}V${top - 10}`)
    }
  }

  const layers: string[] = []
  if (method.build === 'layers' && shape !== 'lying-drum') {
    const count = Math.max(4, method.pattern.length * 2)
    for (let at = 1; at < count; at++) {
      const up = at / count
      const inset = slope * up * 0.9
      layers.push(`M${left + inset} ${ground - h * up}H${right - inset}`)
    }
  }
  return {
    heap,
    holder,
    pipes,
    layers,
    person: { x: width - 26, head: ground - PERSON_CM * scale, foot: ground },
    width,
    height,
  }
}

export interface HeatDrawing {
  band: string
  ticks: { day: number; x: number }[]
  warmth: { celsius: number; y: number }[]
  /** The line from which seed and sickness die, if it holds. */
  hot: number
  width: number
  height: number
}

/** How warm the core should be by age: days across, the first ones wider; a band, not a line of truth. */
export function heatOf(expected: Method['expected'], width: number): HeatDrawing {
  const height = 190
  const last = expected.at(-1)?.day ?? 1
  const x = rooted([0, last], [36, width - 10])
  const y = linear([0, 75], [height - 24, 8])
  const points = [{ day: 0, core_c: [8, 20] }, ...expected]
  const band = area<(typeof points)[number]>()
    .x(({ day }) => x(day))
    .y0(({ core_c }) => y(core_c[0] ?? 0))
    .y1(({ core_c }) => y(core_c[1] ?? 0))
    .curve(curveMonotoneX)
  const days = [0, 3, 7, 14, 28, 60, 120, 180, 240, 365].filter((day) => day <= last)
  return {
    band: band(points) ?? '',
    ticks: days.map((day) => ({ day, x: x(day) })),
    warmth: [20, 40, 55, 70].map((celsius) => ({ celsius, y: y(celsius) })),
    hot: y(55),
    width,
    height,
  }
}

/** A person as one line: head and body. */
export function personPath({ x, head, foot }: Outline['person']): string {
  const tall = foot - head
  const body = line()([
    [x, head + tall * 0.16],
    [x, head + tall * 0.56],
  ])
  return `${body}M${x - tall * 0.1} ${head + tall * 0.42}L${x} ${head + tall * 0.22}L${x + tall * 0.1} ${head + tall * 0.42}M${x - tall * 0.09} ${foot}L${x} ${head + tall * 0.56}L${x + tall * 0.09} ${foot}`
}
