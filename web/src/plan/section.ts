import type { LayerPlan } from '@/api/client'
import type { Drawable } from '@/build/build'

/** A layer, or a load of several materials mixed, as one band of the heap. */
export interface Band {
  /** Places of its layers in the plan. */
  layers: number[]
  cycle: number | null
  role: string
  from: number
  to: number
}

/** The bands of a plan from the ground up: a layer each, or where it is mixed first a load each. */
export function bandsOf({ build, layers }: Pick<LayerPlan, 'build' | 'layers'>): Band[] {
  const bands: Band[] = []
  layers.forEach((layer, index) => {
    const last = bands.at(-1)
    const cycle = layer.cycle ?? null
    if (build === 'mixed' && cycle !== null && last?.cycle === cycle) {
      last.layers.push(index)
      last.to = layer.top_cm
    } else {
      const from = layer.top_cm - layer.thickness_cm
      bands.push({ layers: [index], cycle, role: layer.role, from, to: layer.top_cm })
    }
  })
  return bands
}

/** A band as it is drawn. */
export interface Stratum {
  path: string
  /** Middle of its right edge. */
  edge: { x: number; y: number }
  y: number
  height: number
  band: Band
  /** What fills it: shares of its width and the item each is of; none for what is no part of the mix. */
  cells: { path: string; item: number | null }[]
}

export interface Section {
  strata: Stratum[]
  ground: number
  /** Left edge and width at the ground's widest. */
  left: number
  width: number
  /** Walls, drum or pallet. */
  holder: string
  /** The sides planned, where nothing holds the heap. */
  sides: string
  /** Sticks, pipes and columns of air. */
  vents: string
  /** Top of the heap as it is built, and of its rim. */
  top: number
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
export function sheetHeight(
  plan: Pick<Drawable, 'section_width_cm' | 'height_cm' | 'rim_cm'>,
  sheet: Omit<Sheet, 'height'>,
  most: number,
): number {
  const perCm = (sheet.width - sheet.left - sheet.right) / plan.section_width_cm
  return Math.min(most, Math.round(Math.max(plan.height_cm, plan.rim_cm) * perCm) + sheet.top + sheet.bottom)
}

const STEPS = [5, 10, 20, 25, 50, 100]
/** Width of one patch of a mixed load, pixels. */
const PATCH = 20
/** A column of air, centimetres. */
const COLUMN_CM = 10

/** Half the width of a heap at a height; straight walls go on above the rim. */
export function halfAt(outline: LayerPlan['outline'], up: number): number {
  const above = outline.findIndex(([cm]) => (cm ?? 0) >= up)
  if (above <= 0) return outline.at(above)?.[1] ?? 0
  const [low = 0, narrow = 0] = outline[above - 1]!
  const [high = 0, wide = 0] = outline[above]!
  return high > low ? narrow + ((wide - narrow) * (up - low)) / (high - low) : wide
}

/**
 * The section of a heap, to one scale across and up, standing in the middle of
 * its room. The staff is marked in round units of so many centimetres.
 */
export function drawSection(plan: Drawable, sheet: Sheet, unitCm = 1, shape = 'box'): Section {
  const roomAcross = sheet.width - sheet.left - sheet.right
  const roomUp = sheet.height - sheet.top - sheet.bottom
  const tallest = Math.max(plan.height_cm, plan.rim_cm)
  const perCm = Math.min(roomAcross / plan.section_width_cm, roomUp / tallest)
  const width = plan.section_width_cm * perCm
  const left = sheet.left + (sheet.right > 0 ? 0 : (roomAcross - width) / 2)
  const ground = sheet.height - sheet.bottom
  const middle = left + width / 2
  const up = (cm: number) => ground - cm * perCm
  const step = (STEPS.find((units) => units * unitCm * perCm >= 34) ?? 100) * unitCm
  const staff: { cm: number; y: number }[] = []
  for (let cm = 0; cm <= tallest + 1e-6; cm += step) staff.push({ cm, y: up(cm) })

  /** The heights between which the outline bends, and both ends. */
  const heights = (from: number, to: number) => [
    from,
    ...plan.outline.map(([cm = 0]) => cm).filter((cm) => cm > from && cm < to),
    to,
  ]
  /** A strip of the section between two shares of its width, closed. */
  const strip = (from: number, to: number, start = 0, end = 1) => {
    const at = (cm: number, share: number) =>
      `${round(middle + (share * 2 - 1) * halfAt(plan.outline, cm) * perCm)} ${round(up(cm))}`
    const rising = heights(from, to)
    const sides = [...rising.map((cm) => at(cm, start)), ...rising.reverse().map((cm) => at(cm, end))]
    return `M${sides.join('L')}Z`
  }

  const strata = bandsOf(plan).map((band): Stratum => {
    const { from, to } = band
    const mid = (from + to) / 2
    const shares = patches(plan, band, 2 * halfAt(plan.outline, mid) * perCm)
    return {
      path: strip(from, to),
      edge: { x: middle + halfAt(plan.outline, mid) * perCm, y: up(mid) },
      y: up(to),
      height: (to - from) * perCm,
      band,
      cells: shares.map(({ item, start, end }) => ({ item, path: strip(from, to, start, end) })),
    }
  })

  const drawn = { plan, left, width, ground, middle, perCm, up }
  return {
    strata,
    ground,
    left,
    width,
    holder: holderOf(shape, drawn, strip),
    sides: shape === 'pile' || shape === 'windrow' ? strip(0, plan.rim_cm) : '',
    vents: ventsOf(drawn),
    top: up(plan.height_cm),
    rim: up(plan.rim_cm),
    staff,
    perCm,
  }
}

interface Drawn {
  plan: Drawable
  left: number
  width: number
  ground: number
  middle: number
  perCm: number
  up: (cm: number) => number
}

/** What holds the heap, seen from the side. */
function holderOf(
  shape: string,
  { plan, left, width, ground, up }: Drawn,
  strip: (from: number, to: number) => string,
): string {
  const right = left + width
  const rim = up(plan.rim_cm)
  const walls = `M${left} ${rim}V${ground}M${right} ${rim}V${ground}`
  if (shape === 'box' || shape === 'ring') return walls
  if (shape === 'drum') return `M${left - 3} ${rim}H${left}V${ground}H${right}V${rim}H${right + 3}`
  if (shape === 'tower') return `${walls}M${left - 5} ${ground - 1}H${right + 5}`
  return shape === 'lying-drum' ? strip(0, plan.rim_cm) : ''
}

function ventsOf({ plan, middle, ground, perCm, up }: Drawn): string {
  const top = up(Math.max(plan.height_cm, 1)) - 10
  const across = [...new Set(plan.vents.map(([x = 0]) => Math.round(middle + x * perCm)))]
  if (plan.vent === 'stick') return across.map((x) => `M${x - 3} ${ground - 4}L${x + 4} ${top}`).join('')
  const half = (COLUMN_CM * perCm) / 2
  return across.map((x) => `M${x - half} ${ground - 2}V${top}M${x + half} ${ground - 2}V${top}`).join('')
}

/**
 * The patches of a band: one for a layer; for a load as many as find room, each
 * material in its share of the volume, spread so that the mix is seen as one.
 */
function patches(plan: Drawable, { layers, cycle }: Band, width: number) {
  const parts = layers.map((index) => plan.layers[index]!)
  if (parts.length < 2) return [{ item: parts[0]?.item ?? null, start: 0, end: 1 }]
  const whole = parts.reduce((sum, { litres }) => sum + litres, 0)
  const count = Math.max(parts.length, Math.round(width / PATCH))
  const owed = parts.map(() => 0)
  const row = Array.from({ length: count }, () => {
    parts.forEach(({ litres }, index) => (owed[index]! += litres / whole))
    const next = owed.indexOf(Math.max(...owed))
    owed[next]! -= 1
    return parts[next]!.item ?? null
  })
  // Each load begins elsewhere, so that no columns seem to run through the heap.
  const shift = ((cycle ?? 0) * 3) % count
  return row.map((_, index) => ({
    item: row[(index + shift) % count]!,
    start: index / count,
    end: (index + 1) / count,
  }))
}

const round = (value: number) => Math.round(value * 10) / 10

/** What fills a cell: no fill for what is no part of the mix, but twigs below it. */
export function fillOf(item: number | null, role: string, hatches: string[]): string {
  if (item !== null) return `url(#${hatches[item]})`
  return role === 'foundation' ? 'url(#hatch-twigs)' : 'none'
}
