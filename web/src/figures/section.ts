import type { LayerPlan } from '@/api/client'

/** A layer as it is drawn. */
export interface Stratum {
  x: number
  y: number
  width: number
  height: number
  index: number
}

export interface Section {
  strata: Stratum[]
  ground: number
  /** Left edge and width of the container. */
  left: number
  width: number
  /** Height of the container's rim on the sheet. */
  rim: number
  /** Marks of the height staff, in centimetres. */
  staff: { cm: number; y: number }[]
  /** Pixels a centimetre. */
  perCm: number
}

export interface Sheet {
  width: number
  height: number
  /** Room kept at the left for the staff and at the right for names. */
  left: number
  right: number
  top: number
  bottom: number
}

/** The height a sheet needs for a heap drawn as wide as the room allows, but no more than `most`. */
export function sheetHeight(plan: LayerPlan, sheet: Omit<Sheet, 'height'>, most: number): number {
  const perCm = (sheet.width - sheet.left - sheet.right) / plan.section_width_cm
  return Math.min(most, Math.round(Math.max(plan.height_cm, plan.rim_cm) * perCm) + sheet.top + sheet.bottom)
}

const STEPS = [5, 10, 20, 25, 50, 100]

/**
 * The section of a heap, to one scale across and up, standing in the middle of
 * its room. The staff is marked in round units of so many centimetres.
 */
export function drawSection(plan: LayerPlan, sheet: Sheet, unitCm = 1): Section {
  const roomAcross = sheet.width - sheet.left - sheet.right
  const roomUp = sheet.height - sheet.top - sheet.bottom
  const tallest = Math.max(plan.height_cm, plan.rim_cm)
  const perCm = Math.min(roomAcross / plan.section_width_cm, roomUp / tallest)
  const width = plan.section_width_cm * perCm
  const left = sheet.left + (sheet.right > 0 ? 0 : (roomAcross - width) / 2)
  const ground = sheet.height - sheet.bottom
  const up = (cm: number) => ground - cm * perCm
  const step = (STEPS.find((units) => units * unitCm * perCm >= 34) ?? 100) * unitCm
  const staff: { cm: number; y: number }[] = []
  for (let cm = 0; cm <= tallest + 1e-6; cm += step) staff.push({ cm, y: up(cm) })
  return {
    strata: plan.layers.map((layer, index) => ({
      x: left,
      y: up(layer.top_cm),
      width,
      height: layer.thickness_cm * perCm,
      index,
    })),
    ground,
    left,
    width,
    rim: up(plan.rim_cm),
    staff,
    perCm,
  }
}
