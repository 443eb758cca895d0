/** Placing labels beside marks so that none covers another. */

export interface Mark {
  x: number
  y: number
  r: number
  text: string
}

export interface Rect {
  x: number
  y: number
  width: number
  height: number
}

export interface Label extends Rect {
  text: string
}

const HEIGHT = 16
const GAP = 4
/** Width of a letter at 13 px, a little generously. */
const LETTER = 6.9

export function textWidth(text: string): number {
  return text.length * LETTER
}

/**
 * A label for each mark, in one of twelve places around it: the place that
 * covers least of other labels, of marks, and of what stands outside the frame.
 * Marks are served in their order, so put the most important first. A label
 * that would still cover another is left out: its mark can be asked by name.
 */
export function placeLabels(marks: Mark[], frame: Rect, kept: Rect[] = []): (Label | null)[] {
  const circles = marks.map(({ x, y, r }) => ({ x: x - r, y: y - r, width: 2 * r, height: 2 * r }))
  const placed: Rect[] = [...kept]
  return marks.map((mark, index) => {
    const width = textWidth(mark.text)
    let best: { cost: number; covers: number; rect: Rect } | null = null
    places(mark, width).forEach((rect, order) => {
      const outside = area(rect) - overlap(rect, frame)
      const onLabels = sum(placed, (other) => overlap(rect, other))
      const onMarks = sum(circles, (other, at) => (at === index ? 0 : overlap(rect, other)))
      const cost = outside * 4 + onLabels * 4 + onMarks + order
      if (!best || cost < best.cost) best = { cost, covers: onLabels, rect }
    })
    const { covers, rect } = best!
    if (covers > 0) return null
    placed.push(rect)
    return { ...rect, text: mark.text }
  })
}

function places({ x, y, r }: Mark, width: number): Rect[] {
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
    at(x + out, middle - HEIGHT),
    at(x + out, middle + HEIGHT),
    at(x - out - width, middle - HEIGHT),
    at(x - out - width, middle + HEIGHT),
  ]
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

function area(rect: Rect): number {
  return rect.width * rect.height
}

function overlap(a: Rect, b: Rect): number {
  const width = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x)
  const height = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y)
  return width > 0 && height > 0 ? width * height : 0
}

function sum<T>(items: T[], of: (item: T, index: number) => number): number {
  return items.reduce((total, item, index) => total + of(item, index), 0)
}
