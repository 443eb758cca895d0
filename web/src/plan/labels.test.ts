import { describe, expect, it } from 'vitest'
import { awayFrom, isCrossing, placeLabels, spread, type Label, type Mark, type Rect } from './labels'

const WIDE = { x: 40, y: 10, width: 352, height: 358 }
const PHONE = { x: 40, y: 10, width: 276, height: 298 }

function crossing(a: Rect, b: Rect): boolean {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height
}

/** Twelve marks within a hand's breadth, a different heap of them for each seed. */
function crowd({ x, y, width, height }: Rect, seed: number, letters: number): Mark[] {
  let state = seed * 7919 + 17
  const next = () => (state = (state * 48271) % 2147483647) / 2147483647
  return Array.from({ length: 12 }, (_, i) => ({
    x: x + width * (0.3 + 0.4 * next()),
    y: y + height * (0.35 + 0.3 * next()),
    r: 9 + 6 * next(),
    text: `Material number ${i} of all`.slice(0, 8 + Math.floor((letters - 7) * next())),
  }))
}

function stand(marks: Mark[], frame: Rect) {
  const labels = placeLabels(marks, frame)
  expect(labels.filter((label) => label === null)).toEqual([])
  const all = labels as Label[]
  all.forEach((one, i) => {
    expect(one.x).toBeGreaterThanOrEqual(frame.x)
    expect(one.x + one.width).toBeLessThanOrEqual(frame.x + frame.width)
    for (const other of all.slice(i + 1)) {
      expect(crossing(one, other), `${one.text} over ${other.text}`).toBe(false)
      if (one.leader && other.leader) expect(isCrossing(one.leader, other.leader)).toBe(false)
    }
    if (one.leader) return expect(one.leader.from).toMatchObject({ x: marks[i]!.x, y: marks[i]!.y })
    const away = marks.map((mark) => awayFrom(one, mark) - mark.r)
    expect(Math.min(...away), `${one.text} names another mark`).toBe(away[i])
  })
}

describe('labels at marks', () => {
  it.each([
    ['wide', WIDE, 22],
    ['phone', PHONE, 16],
  ])('name twelve marks that lie close together, each its own, on a %s field', (_, frame, letters) => {
    for (let seed = 1; seed <= 200; seed += 1) stand(crowd(frame, seed, letters), frame)
  })

  it('stand beside their marks where there is room', () => {
    const marks = [
      { x: 100, y: 60, r: 9, text: 'Barley straw' },
      { x: 250, y: 250, r: 12, text: 'Sheep manure' },
    ]
    for (const label of placeLabels(marks, WIDE)) expect(label?.leader).toBeNull()
  })

  it('stay inside the frame at its edges', () => {
    for (const [x, y] of [
      [45, 15],
      [388, 15],
      [45, 363],
      [388, 363],
    ] as const) {
      stand([{ x, y, r: 8, text: 'Barley straw' }], WIDE)
    }
  })
})

describe('labels in a column', () => {
  it('keep their distance and their order', () => {
    const heights = spread([100, 102, 103, 300], 16, 0, 400)
    expect(heights[1]! - heights[0]!).toBeGreaterThanOrEqual(16)
    expect(heights[2]! - heights[1]!).toBeGreaterThanOrEqual(16)
    expect(heights[3]).toBe(300)
  })

  it('close up rather than leave the column', () => {
    const heights = spread(
      Array.from({ length: 50 }, () => 200),
      16,
      0,
      400,
    )
    expect(Math.min(...heights)).toBeGreaterThan(-0.001)
    expect(Math.max(...heights)).toBeLessThan(400.001)
  })
})
