import type { BuildState, BuildStep, Heap, Layer, LayerPlan, MixSums } from '@/api/client'

type Standing = MixSums['standing']

/** What a section is drawn from. */
export type Drawable = Pick<
  LayerPlan,
  'build' | 'layers' | 'outline' | 'section_width_cm' | 'rim_cm' | 'height_cm' | 'vent' | 'vents'
>

/** A heap on build day as it is drawn: each step is one band, whatever went into it. */
export function drawable(build: BuildState): Drawable {
  const layers = build.steps.flatMap((step, at): Layer[] => {
    const { role, thickness_cm, top_cm } = step
    const one = { role, thickness_cm, top_cm, cycle: at + 1, grams: 0, water_ml: 0, measures: null }
    const parts = step.portions.map(({ item }, place) => ({ ...one, item, litres: step.litres[place] ?? 0 }))
    return parts.length ? parts : [{ ...one, item: null, litres: step.beside_l }]
  })
  const { outline, section_width_cm, rim_cm, end_height_cm, vent, vents } = build
  return { build: 'mixed', layers, outline, section_width_cm, rim_cm, height_cm: end_height_cm, vent, vents }
}

export type Fault = 'green' | 'brown' | 'dry' | 'wet' | 'dense'

/** What is wrong with a heap as it will end, or nothing. C:N first, since it cannot be poured on. */
export function faultOf(standing?: Standing | null): Fault | null {
  if (!standing) return null
  if (standing.c_n.endsWith('below')) return 'green'
  if (standing.c_n.endsWith('above')) return 'brown'
  if (standing.free_air_space !== 'right') return 'dense'
  if (standing.moisture.endsWith('below')) return 'dry'
  if (standing.moisture.endsWith('above')) return 'wet'
  return null
}

/** Whether that is more than a little. */
export const isGrave = (standing: Standing) => Object.values(standing).some((word) => word.startsWith('far'))

/** Whether the heap ends as it was meant to, near enough: whoever planned it so knew. */
export function isAsPlanned({ at_end: now, as_planned: then }: BuildState): boolean {
  if (!now || !then) return false
  const isNear = Math.abs(now.c_n / then.c_n - 1) < 0.02 && Math.abs(now.moisture_pct - then.moisture_pct) < 1
  return isNear && faultOf(now.standing) === faultOf(then.standing)
}

/** An act that has not reached the server yet, kept in the browser until it has. */
export interface Waiting {
  what: 'lay' | 'anew' | 'end' | 'undo'
  body: { version: number } & Record<string, unknown>
}

/** Whether an act that was refused as stale is what the heap was changed by: its answer was lost, not the act. */
export function wasKept({ version, build }: Heap, { what, body }: Waiting): boolean {
  if (version !== body.version + 1) return false
  const step = what === 'lay' ? build.steps[body.step as number] : undefined
  const said = ({ portions, water_l }: Pick<BuildStep, 'portions' | 'water_l'>) =>
    JSON.stringify([portions.map(({ item, amount }) => [item, amount]), water_l])
  return !step || said(step) === said(body as unknown as BuildStep)
}

const keptAs = (heap: number) => `zymarch-build-${heap}`

export function keepWaiting(heap: number, act: Waiting | null) {
  try {
    if (act) localStorage.setItem(keptAs(heap), JSON.stringify(act))
    else localStorage.removeItem(keptAs(heap))
  } catch {
    // A browser that keeps nothing: the act waits on the open page alone.
  }
}

export function keptWaiting(heap: number): Waiting | null {
  try {
    const text = localStorage.getItem(keptAs(heap))
    return text ? (JSON.parse(text) as Waiting) : null
  } catch {
    return null
  }
}
