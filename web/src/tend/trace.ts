/** The heat trace as a drawing: what was read over what was expected, with what was done. */
import { area, line } from 'd3-shape'
import type { EntryKind, Trace } from '@/api/client'
import { linear } from '@/kit/scale'

const HOUR = 3_600_000
const DAY = 24 * HOUR

/** Lines that practice draws: where a heap works, is hot enough, wants turning, is too hot. */
export const HEAT_LINES = [
  { celsius: 45, name: 'working' },
  { celsius: 55, name: 'hot' },
  { celsius: 65, name: 'turn' },
  { celsius: 70, name: 'tooHot' },
] as const

export type View = readonly [number, number]

/** Room beside the drawing, px. */
export const MARGIN = { left: 34, right: 8, top: 16, bottom: 58 } as const

export interface Sign {
  x: number
  kinds: EntryKind[]
  at_ms: number
  /** What it stands for, if more than there is room for. */
  more: number
}

export interface Drawing {
  width: number
  height: number
  x: (ms: number) => number
  y: (celsius: number) => number
  band: string
  ahead: string
  aheadEdges: [string, string]
  air: string
  lines: {
    place: Trace['lines'][number]['place']
    path: string
    dots: { x: number; y: number; celsius: number }[]
  }[]
  /** Where each line is named: at its end, and none over another. */
  ends: { place: Trace['lines'][number]['place']; x: number; y: number }[]
  sticks: { x: number; y: number; height: number; feel: Trace['sticks'][number]['feel'] }[]
  faulty: { x: number; y: number }[]
  runs: { x: number; width: number }[]
  signs: Sign[]
  warmth: { celsius: number; y: number }[]
  ticks: { x: number; day: number; hour: number | null }[]
  now: number | null
}

/** Dots are drawn where they can be told apart. */
const MOST_DOTS = 60
/** Signs of what was done need so much room, px. */
const SIGN = 20
/** So many stand over each other at one place. */
const MOST_SIGNS = 2

/** The highest and lowest that is shown, °C. */
export function range(trace: Trace): [number, number] {
  const temps = [
    ...trace.lines.flatMap(({ points }) => points.map(([, celsius]) => celsius!)),
    ...trace.band.flatMap(([, low, high]) => [low!, high!]),
    ...trace.air.map(([, celsius]) => celsius!),
  ]
  const low = Math.min(10, ...temps)
  const high = Math.max(72, ...temps)
  return [Math.floor(low / 10) * 10, Math.ceil((high + 1) / 5) * 5]
}

export function draw(trace: Trace, view: View, width: number, height: number): Drawing {
  const { left, right, top, bottom } = MARGIN
  const [from, to] = view
  const x = linear([from, to], [left, width - right])
  const y = linear(range(trace), [height - bottom, top])
  const band = area<number[]>()
    .x(([ms]) => x(ms!))
    .y0(([, low]) => y(low!))
    .y1(([, , high]) => y(high!))
  const edge = (place: 1 | 2) =>
    line<number[]>()
      .x(([ms]) => x(ms!))
      .y((point) => y(point[place]!))(trace.ahead) ?? ''
  const course = line<number[]>()
    .x(([ms]) => x(ms!))
    .y(([, celsius]) => y(celsius!))
  const isSeen = (ms: number) => ms >= from && ms <= to
  const built = trace.built_at ? Date.parse(trace.built_at) : trace.span_ms[0]!
  return {
    width,
    height,
    x,
    y,
    band: band(trace.band) ?? '',
    ahead: band(trace.ahead) ?? '',
    aheadEdges: [edge(1), edge(2)],
    air: course(trace.air) ?? '',
    lines: trace.lines.map(({ place, points }) => {
      const seen = points.filter(([ms]) => isSeen(ms!))
      return {
        place,
        path: course(points) ?? '',
        dots:
          seen.length <= MOST_DOTS
            ? seen.map(([ms, celsius]) => ({ x: x(ms!), y: y(celsius!), celsius: celsius! }))
            : [],
      }
    }),
    ends: ends(trace, view, width, x, y),
    sticks: trace.sticks
      .filter(({ at_ms }) => isSeen(at_ms))
      .map(({ at_ms, feel, between_c }) => {
        const [low, high] = [y(between_c[0]!), y(between_c[1]!)]
        return { x: x(at_ms), y: high, height: low - high, feel }
      }),
    faulty: trace.faulty
      .filter(({ at_ms }) => isSeen(at_ms))
      .map(({ at_ms, temp_c }) => ({
        x: x(at_ms),
        y: Math.min(height - bottom, Math.max(top, y(temp_c))),
      })),
    runs: trace.runs
      .filter(({ from_ms, to_ms }) => to_ms > from_ms)
      .map(({ from_ms, to_ms }) => ({ from: clamp(from_ms, view), to: clamp(to_ms, view) }))
      .filter((run) => run.to > run.from)
      .map((run) => ({ x: x(run.from), width: x(run.to) - x(run.from) })),
    signs: signs(
      trace.events.filter(({ at_ms }) => isSeen(at_ms)),
      x,
    ),
    warmth: [10, 20, 30, 40, 50, 60, 70]
      .filter((celsius) => y(celsius) <= height - bottom && y(celsius) >= top)
      .map((celsius) => ({ celsius, y: y(celsius) })),
    ticks: ticks(built, view, width).map(({ ms, day, hour }) => ({ x: x(ms), day, hour })),
    now: isSeen(trace.now_ms) ? x(trace.now_ms) : null,
  }
}

const clamp = (ms: number, [from, to]: View) => Math.min(to, Math.max(from, ms))

/** A line of writing is so high, px. */
const WRITING = 14
/** The longest name of a place is so wide, px. */
const NAME = 60

function ends(
  trace: Trace,
  [from, to]: View,
  width: number,
  x: Drawing['x'],
  y: Drawing['y'],
): Drawing['ends'] {
  let last = -Infinity
  return trace.lines
    .flatMap(({ place, points }) => {
      const end = points.findLast(([ms]) => ms! >= from && ms! <= to)
      return end ? [{ place, x: Math.min(x(end[0]!) + 5, width - NAME), y: y(end[1]!) + 4 }] : []
    })
    .sort((a, b) => a.y - b.y)
    .map((end) => {
      last = Math.max(end.y, last + WRITING)
      return { ...end, y: last }
    })
}

/** Signs of what was done, those that would lie over each other together. */
function signs(events: Trace['events'], x: (ms: number) => number): Sign[] {
  const all: Sign[] = []
  for (const { at_ms, kind } of events) {
    const at = x(at_ms)
    const last = all.at(-1)
    if (!last || at - last.x >= SIGN) all.push({ x: at, kinds: [kind], at_ms, more: 0 })
    else if (last.kinds.includes(kind)) continue
    else if (last.kinds.length < MOST_SIGNS) last.kinds.push(kind)
    else last.more += 1
  }
  return all
}

const DAYS = [1, 2, 4, 7, 14, 28, 56, 112]
const HOURS = [1, 3, 6, 12]

/** Where days or hours are written: as many as there is room for. */
export function ticks(
  built: number,
  [from, to]: View,
  width: number,
): { ms: number; day: number; hour: number | null }[] {
  const most = Math.max(2, Math.floor(width / (width < 520 ? 50 : 62)))
  const fits = (step: number) => (to - from) / step <= most
  const hours = HOURS.find((step) => fits(step * HOUR))
  const step = hours ? hours * HOUR : (DAYS.find((days) => fits(days * DAY)) ?? 224) * DAY
  const first = Math.ceil((from - built) / step)
  const last = Math.floor((to - built) / step)
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, nth) => {
    const ms = built + (first + nth) * step
    const since = ms - built
    return { ms, day: Math.floor(since / DAY), hour: hours ? Math.round((since % DAY) / HOUR) : null }
  })
}

/** A view within the whole, so wide at least, moved and zoomed. */
export function within(view: View, [first, last]: View): View {
  const least = 3 * HOUR
  const span = Math.min(last - first, Math.max(least, view[1] - view[0]))
  const middle = (view[0] + view[1]) / 2
  const from = Math.min(Math.max(first, middle - span / 2), last - span)
  return [from, from + span]
}

export function zoomed(view: View, whole: View, by: number, at = (view[0] + view[1]) / 2): View {
  const span = (view[1] - view[0]) / by
  const part = (at - view[0]) / (view[1] - view[0])
  return within([at - part * span, at + (1 - part) * span], whole)
}

export function moved(view: View, whole: View, share: number): View {
  const by = (view[1] - view[0]) * share
  const clear = Math.min(Math.max(by, whole[0] - view[0]), whole[1] - view[1])
  return [view[0] + clear, view[1] + clear]
}

/** What to ask for a view: a part somewhat wider, of few different widths, so that panning asks seldom. */
export function asked(view: View, whole: View): { from_ms: number; to_ms: number } | null {
  const all = whole[1] - whole[0]
  const level = Math.floor(Math.log2(all / (view[1] - view[0])))
  if (level < 1) return null
  const span = all / 2 ** level
  const from = whole[0] + Math.floor((view[0] - whole[0]) / span) * span
  return {
    from_ms: Math.floor(Math.max(whole[0], from - span / 2)),
    to_ms: Math.ceil(Math.min(whole[1], from + 2.5 * span)),
  }
}

export interface Day {
  day: number
  ms: number
  high: number | null
  low: number | null
  edge: number | null
  done: EntryKind[]
}

/** Day by day, for the table. */
export function days(trace: Trace): Day[] {
  const built = trace.built_at ? Date.parse(trace.built_at) : trace.span_ms[0]!
  const all = new Map<number, Day>()
  const of = (ms: number) => {
    const day = Math.floor((ms - built) / DAY)
    const known = all.get(day)
    if (known) return known
    const fresh: Day = { day, ms: built + day * DAY, high: null, low: null, edge: null, done: [] }
    all.set(day, fresh)
    return fresh
  }
  for (const { place, points } of trace.lines)
    for (const [ms, celsius] of points) {
      const day = of(ms!)
      if (place === 'core') {
        day.high = Math.max(day.high ?? -Infinity, celsius!)
        day.low = Math.min(day.low ?? Infinity, celsius!)
      } else if (place === 'edge') day.edge = Math.max(day.edge ?? -Infinity, celsius!)
    }
  for (const { at_ms, kind } of trace.events) {
    const day = of(at_ms)
    if (!day.done.includes(kind)) day.done.push(kind)
  }
  return [...all.values()].sort((a, b) => b.day - a.day)
}

/** What was read at a time, of each place: the nearest reading within an hour or the line between two. */
export function readAt(trace: Trace, ms: number): { place: string; celsius: number }[] {
  return trace.lines.flatMap(({ place, points }) => {
    const next = points.findIndex(([at]) => at! >= ms)
    const [before, after] = [points[next - 1], points[next]]
    if (!after) return []
    if (!before) return after[0]! - ms < 3 * HOUR ? [{ place, celsius: after[1]! }] : []
    const nearest = ms - before[0]! < after[0]! - ms ? before : after
    return Math.abs(nearest[0]! - ms) < 12 * HOUR ? [{ place, celsius: nearest[1]! }] : []
  })
}

/** What was expected of the core at a time. */
export function expectedAt(trace: Trace, ms: number): [number, number] | null {
  const band = ms <= trace.now_ms ? trace.band : trace.ahead
  const at = band.findLast(([when]) => when! <= ms)
  return at ? [at[1]!, at[2]!] : null
}
