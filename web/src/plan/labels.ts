/** Placing labels at marks so that none covers another and none seems to name a mark that is not its own. */

export interface Point {
  x: number
  y: number
}

export interface Mark extends Point {
  r: number
  text: string
}

export interface Rect extends Point {
  width: number
  height: number
}

export interface Label extends Rect {
  text: string
  /** Which end of the words stands still: the one next to their mark or their line. */
  anchor: 'start' | 'middle' | 'end'
  /** A line from the mark to a label that has no room beside it. */
  leader: { from: Point; to: Point } | null
}

/** Where the words of a label are drawn from, by their anchor: they may be narrower than was reckoned. */
export const anchoredAt = ({ x, width, anchor }: Label) =>
  anchor === 'start' ? x : anchor === 'end' ? x + width : x + width / 2

const HEIGHT = 16
const GAP = 4
/** Width of a letter at 13 px, a little generously. */
const LETTER = 6.9
/** How much nearer its own mark a label stands than any other, px. */
const CLEARLY = 5
/** Columns and row heights in which places for led labels are looked for, the tidy ones first. */
const GRIDS = [
  [3, HEIGHT + 2],
  [9, 6],
] as const

export function textWidth(text: string): number {
  return text.length * LETTER
}

/**
 * A label for each mark. It stands beside its mark where it covers nothing and is clearly
 * nearest to it; where marks crowd it stands in the next free place, on a line that crosses
 * no other. A mark gets none only where the frame is full.
 */
export function placeLabels(marks: Mark[], frame: Rect, kept: Rect[] = []): (Label | null)[] {
  const labels: (Label | null)[] = marks.map(() => null)
  const taken: Rect[] = [...kept]
  marks.forEach((mark, index) => {
    const rect = beside(mark, textWidth(mark.text)).find(
      (place) =>
        isInside(place, frame) && !taken.some((other) => isOver(place, other)) && names(place, marks, index),
    )
    if (!rect) return
    taken.push(rect)
    const anchor = rect.x >= mark.x ? 'start' : rect.x + rect.width <= mark.x ? 'end' : 'middle'
    labels[index] = { ...rect, text: mark.text, anchor, leader: null }
  })
  const crowded = marks.map((_, index) => index).filter((index) => labels[index] === null)
  lead(crowded, marks, frame, taken).forEach((label, index) => (labels[index] = label))
  return labels
}

/** Whether a label there covers no mark and is nearest to its own. */
function names(place: Rect, marks: Mark[], own: number): boolean {
  const away = marks.map((mark) => awayFrom(place, mark) - mark.r)
  return away.every((gap, index) => index === own || (gap > 0 && gap > away[own]! + CLEARLY))
}

function beside({ x, y, r }: Mark, width: number): Rect[] {
  const out = r + GAP
  const slant = r * 0.7 + GAP
  const at = (left: number, top: number): Rect => ({ x: left, y: top, width, height: HEIGHT })
  const middle = y - HEIGHT / 2
  return [
    at(x + out, middle),
    at(x - out - width, middle),
    at(x - width / 2, y - out - HEIGHT),
    at(x - width / 2, y + out),
    at(x + slant, y - slant - HEIGHT),
    at(x + slant, y + slant),
    at(x - slant - width, y - slant - HEIGHT),
    at(x - slant - width, y + slant),
  ]
}

/** Labels on lines for the marks that have no room: each in the nearest free place, then untangled. */
function lead(crowded: number[], marks: Mark[], frame: Rect, taken: Rect[]): Map<number, Label> {
  const widest = Math.max(0, ...crowded.map((index) => textWidth(marks[index]!.text)))
  const isFree = (place: Rect) =>
    !taken.some((other) => isOver(place, other)) && marks.every((mark) => awayFrom(place, mark) > mark.r + 2)
  let found = new Map<number, Rect>()
  // In tidy rows, or, where those are full, wherever there is a gap.
  for (const [columns, row] of GRIDS) {
    const now = nearest(crowded, marks, places(frame, widest, columns, row).filter(isFree), taken)
    if (now.size > found.size) found = now
    if (found.size === crowded.length) break
  }
  untangle(found, marks)
  return new Map(
    [...found].map(([index, place]) => {
      const mark = marks[index]!
      const to = end(place, mark)
      // Words at the side from which their line comes.
      const width = textWidth(mark.text)
      const isRight = to.x > place.x
      const x = isRight ? place.x + place.width - width : place.x
      const anchor = isRight ? ('end' as const) : ('start' as const)
      return [index, { ...place, x, width, anchor, text: mark.text, leader: { from: mark, to } }]
    }),
  )
}

/** For each mark the nearest place that none before it took, its line through few other labels. */
function nearest(crowded: number[], marks: Mark[], free: Rect[], taken: Rect[]): Map<number, Rect> {
  const found = new Map<number, Rect>()
  for (const index of crowded) {
    const mark = marks[index]!
    const cost = (place: Rect) => {
      const line = { from: mark, to: end(place, mark) }
      const covers = taken.filter((other) => isThrough(line, other)).length
      return Math.hypot(line.from.x - line.to.x, line.from.y - line.to.y) + 240 * covers
    }
    const open = free.filter((place) => ![...found.values()].some((other) => isOver(place, other)))
    if (!open.length) break
    found.set(
      index,
      open.reduce((best, place) => (cost(place) < cost(best) ? place : best)),
    )
  }
  return found
}

/** Two lines that cross change their ends; both together grow shorter, so it ends. */
function untangle(found: Map<number, Rect>, marks: Mark[]) {
  const indices = [...found.keys()]
  const line = (index: number) => ({ from: marks[index]!, to: end(found.get(index)!, marks[index]!) })
  for (let round = 0; round < 200; round += 1) {
    const pair = indices
      .flatMap((one, at) => indices.slice(at + 1).map((other) => [one, other] as const))
      .find(([one, other]) => isCrossing(line(one), line(other)))
    if (!pair) return
    const [one, other] = pair
    const place = found.get(one)!
    found.set(one, found.get(other)!)
    found.set(other, place)
  }
}

/** Places for a label all over the frame, in columns from edge to edge and rows so far apart. */
function places({ x, y, width, height }: Rect, wide: number, columns: number, row: number): Rect[] {
  const rows = Math.floor((height - HEIGHT) / row) + 1
  const apart = (width - wide - 4) / (columns - 1)
  return Array.from({ length: rows }, (_, down) =>
    Array.from({ length: columns }, (_, across) => ({
      x: x + 2 + across * apart,
      y: y + down * row,
      width: wide,
      height: HEIGHT,
    })),
  ).flat()
}

/** Where the line from a mark meets its label: the nearer end of the words. */
function end({ x, y, width, height }: Rect, from: Point): Point {
  return { x: from.x > x + width / 2 ? x + width + 2 : x - 2, y: y + height / 2 }
}

type Segment = { from: Point; to: Point }

const side = ({ from, to }: Segment, { x, y }: Point) =>
  Math.sign((to.x - from.x) * (y - from.y) - (to.y - from.y) * (x - from.x))

export function isCrossing(one: Segment, other: Segment): boolean {
  return side(one, other.from) * side(one, other.to) < 0 && side(other, one.from) * side(other, one.to) < 0
}

function isThrough(line: Segment, { x, y, width, height }: Rect): boolean {
  const [a, b, c, d] = [
    { x, y },
    { x: x + width, y },
    { x: x + width, y: y + height },
    { x, y: y + height },
  ]
  return isCrossing(line, { from: a!, to: c! }) || isCrossing(line, { from: b!, to: d! })
}

/** How far a point lies from a rectangle; 0 within it. */
export function awayFrom({ x, y, width, height }: Rect, point: Point): number {
  const dx = Math.max(x - point.x, 0, point.x - x - width)
  const dy = Math.max(y - point.y, 0, point.y - y - height)
  return Math.hypot(dx, dy)
}

function isInside(rect: Rect, frame: Rect): boolean {
  return (
    rect.x >= frame.x &&
    rect.y >= frame.y &&
    rect.x + rect.width <= frame.x + frame.width &&
    rect.y + rect.height <= frame.y + frame.height
  )
}

function isOver(a: Rect, b: Rect): boolean {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height
}

/**
 * Heights for labels that stand in a column, each as near to its own height as
 * room allows, none closer than `gap`, all between `top` and `bottom`.
 */
export function spread(wanted: number[], gap: number, top: number, bottom: number): number[] {
  const order = wanted.map((_, index) => index).sort((a, b) => wanted[a]! - wanted[b]!)
  const heights = new Array<number>(wanted.length)
  const room = Math.min(gap, wanted.length > 1 ? (bottom - top) / (wanted.length - 1) : gap)
  let floor = top
  for (const index of order) {
    heights[index] = Math.max(wanted[index]!, floor)
    floor = heights[index]! + room
  }
  let ceiling = bottom
  for (const index of order.reverse()) {
    heights[index] = Math.min(heights[index]!, ceiling)
    ceiling = heights[index]! - room
  }
  return heights
}
