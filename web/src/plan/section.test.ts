import { describe, expect, it } from 'vitest'
import type { Layer, LayerPlan } from '@/api/client'
import { bandsOf, drawSection, halfAt, sheetHeight } from './section'

const layer = (thickness_cm: number, top_cm: number, rest = {}): Layer => ({
  item: 0,
  role: 'mix',
  cycle: 1,
  grams: 1,
  water_ml: 0,
  litres: 1,
  thickness_cm,
  top_cm,
  ...rest,
})
const AMOUNTS = { amounts: [], water_l: 0 }
const PLAN: LayerPlan = {
  build: 'layers',
  cycles: 1,
  outline: [
    [0, 60],
    [100, 60],
  ],
  section_width_cm: 120,
  rim_cm: 100,
  capacity_l: 1440,
  height_cm: 60,
  beside_l: 0,
  vent: 'none',
  vents: [],
  fit: { factor: 1, heaps: 1, sides: null, filling: AMOUNTS, shapes: [] },
  layers: [layer(40, 40), layer(20, 60)],
  findings: [],
}
const SHEET = { width: 300, height: 400, left: 40, right: 0, top: 20, bottom: 40 }
const SLOPING: LayerPlan['outline'] = [
  [0, 60],
  [100, 20],
]

/** The points of a path. */
const points = (path: string) =>
  path
    .slice(1, -1)
    .split('L')
    .map((pair) => pair.split(' ').map(Number) as [number, number])

describe('the section of a heap', () => {
  it('has one scale across and up', () => {
    const section = drawSection(PLAN, SHEET)
    expect(section.width / 120).toBeCloseTo(section.perCm)
    expect(section.strata[0]!.height / 40).toBeCloseTo(section.perCm)
  })

  it('stacks layers from the ground without gaps', () => {
    const { strata, ground } = drawSection(PLAN, SHEET)
    expect(strata[0]!.y + strata[0]!.height).toBeCloseTo(ground)
    expect(strata[1]!.y + strata[1]!.height).toBeCloseTo(strata[0]!.y)
  })

  it('asks for no more sheet than the heap needs', () => {
    const height = sheetHeight(PLAN, SHEET, 1000)
    const { rim } = drawSection(PLAN, { ...SHEET, height })
    expect(rim).toBeCloseTo(SHEET.top, 0)
    expect(sheetHeight(PLAN, SHEET, 120)).toBe(120)
  })

  it('keeps a heap that overflows its container on the sheet', () => {
    const { strata, rim } = drawSection({ ...PLAN, height_cm: 300, layers: [layer(300, 300)] }, SHEET)
    expect(strata[0]!.y).toBeGreaterThanOrEqual(SHEET.top - 0.01)
    expect(rim).toBeGreaterThan(strata[0]!.y)
  })

  it('narrows as the heap does', () => {
    expect(halfAt(SLOPING, 50)).toBe(40)
    expect(halfAt(PLAN.outline, 250)).toBe(60)
    const { strata, perCm } = drawSection({ ...PLAN, outline: SLOPING }, SHEET, 1, 'pile')
    const xs = points(strata[1]!.path).map(([x]) => x)
    // From 40 to 60 cm up: 88 cm wide below, 72 above.
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(88 * perCm, 0)
  })

  it('shows a load as one band of patches, each material in its share', () => {
    const plan: LayerPlan = {
      ...PLAN,
      build: 'mixed',
      layers: [
        layer(30, 30, { litres: 30 }),
        layer(10, 40, { item: 1, litres: 10 }),
        layer(20, 60, { cycle: 2 }),
      ],
    }
    expect(bandsOf(plan).map(({ from, to }) => [from, to])).toEqual([
      [0, 40],
      [40, 60],
    ])
    const [load] = drawSection(plan, SHEET).strata
    const items = load!.cells.map(({ item }) => item)
    expect(items.filter((item) => item === 0).length / items.length).toBeCloseTo(0.75, 1)
    const reach = load!.cells.flatMap(({ path }) => points(path).map(([x]) => x))
    const whole = points(load!.path).map(([x]) => x)
    expect(Math.max(...reach)).toBeCloseTo(Math.max(...whole), 0)
  })

  it('puts sticks and columns where the plan has them', () => {
    const columns = {
      ...PLAN,
      vent: 'columns' as const,
      vents: [
        [-30, 0],
        [30, 0],
        [30, 10],
      ],
    }
    // Two columns behind each other are drawn once.
    expect(drawSection(columns, SHEET, 1, 'tower').vents.split('M').length - 1).toBe(4)
    expect(drawSection(PLAN, SHEET).vents).toBe('')
  })
})
