/** A container as an outline on a sheet, its sides to one scale. */

export type VesselSides = Record<string, number | null | undefined>

export interface VesselOutline {
  outline: string
  /** What stands above the rim, or an empty path. */
  heap: string
  /** Lines across it: the fillings counted in. */
  marks: string
}

const WIDTH = 210
const FLOOR = 160
const ROOM = { width: 190, height: 130 }
/** Widths and height in proportion where nothing is typed yet. */
const USUAL = { top: 28, bottom: 22, height: 26 }

/** Sides to scale; a container of which only the volume is known is drawn as a plain tub. */
export function drawVessel(by: string, sides: VesselSides, heaped: number): VesselOutline {
  const { top, bottom, height } = proportions(by, sides)
  const scale = Math.min(ROOM.width / Math.max(top, bottom), ROOM.height / height)
  const [wide, narrow, tall] = [top * scale, bottom * scale, height * scale]
  const rim = FLOOR - tall
  const left = (WIDTH - wide) / 2
  const foot = (WIDTH - narrow) / 2
  const outline = `M${round(left)} ${round(rim)}L${round(foot)} ${FLOOR}H${round(foot + narrow)}L${round(left + wide)} ${round(rim)}Z`
  const over = Math.min(rim - 4, tall * Math.max(0, heaped - 1) * 1.5)
  const heap =
    over > 0.5
      ? `M${round(left)} ${round(rim)}Q${WIDTH / 2} ${round(rim - 2 * over)} ${round(left + wide)} ${round(rim)}Z`
      : ''
  return { outline, heap, marks: fillings(by, sides, { left, wide, foot, narrow, rim, tall }) }
}

function proportions(by: string, sides: VesselSides) {
  const of = (key: string, usual: number) => (sides[key] && sides[key] > 0 ? sides[key] : usual)
  if (by === 'cylinder') {
    const across = of('across_cm', USUAL.top)
    return { top: across, bottom: across, height: of('height_cm', USUAL.height) }
  }
  if (by === 'cone')
    return {
      top: of('top_cm', USUAL.top),
      bottom: of('bottom_cm', USUAL.bottom),
      height: of('height_cm', USUAL.height),
    }
  if (by === 'box') {
    const long = Math.max(of('length_cm', 40), of('width_cm', 30))
    return { top: long, bottom: long, height: of('height_cm', USUAL.height) }
  }
  return USUAL
}

interface Tub {
  left: number
  wide: number
  foot: number
  narrow: number
  rim: number
  tall: number
}

/** A line for each filling, as long as they can be told apart. */
function fillings(by: string, sides: VesselSides, { left, wide, foot, narrow, rim, tall }: Tub): string {
  const count = by === 'counted' || by === 'measures' ? Math.floor(sides.count ?? 0) : 0
  if (count < 2 || count > 24) return ''
  return Array.from({ length: count - 1 }, (_, index) => {
    const up = (index + 1) / count
    const x = foot + (left - foot) * up
    const length = narrow + (wide - narrow) * up
    return `M${round(x)} ${round(rim + tall * (1 - up))}h${round(length)}`
  }).join('')
}

const round = (value: number) => Math.round(value * 10) / 10
