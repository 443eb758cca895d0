import { describe, expect, it } from 'vitest'
import type { LayerPlan } from '@/api/client'
import { drawSection, sheetHeight } from './section'

const layer = (thickness_cm: number, top_cm: number) => ({
  item: 0,
  cycle: 1,
  grams: 1,
  water_ml: 0,
  litres: 1,
  thickness_cm,
  top_cm,
})
const PLAN: LayerPlan = {
  cycles: 1,
  section_width_cm: 120,
  rim_cm: 100,
  capacity_l: 1440,
  height_cm: 60,
  layers: [layer(40, 40), layer(20, 60)],
  findings: [],
}
const SHEET = { width: 300, height: 400, left: 40, right: 0, top: 20, bottom: 40 }

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
})
