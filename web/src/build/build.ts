import type { BuildState, Layer, LayerPlan, MixSums } from '@/api/client'

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

export type Fault = 'green' | 'brown' | 'dry' | 'wet' | 'dense' | 'packs'

const FAULTS: Record<MixSums['complaints'][number]['flaw'], Fault> = {
  'too-green': 'green',
  'too-brown': 'brown',
  'too-dense': 'dense',
  'too-dry': 'dry',
  'too-wet': 'wet',
  packs: 'packs',
}

/** What is wrong with a heap as it will end, gravest first, or nothing. */
export function faultOf(sums?: Pick<MixSums, 'complaints'> | null): Fault | null {
  const first = sums?.complaints[0]
  return first ? FAULTS[first.flaw] : null
}

/** Whether that is more than a little. */
export const isGrave = (sums: Pick<MixSums, 'complaints'>) => sums.complaints.some(({ far }) => far)

/** Whether a layer went in otherwise than planned and the farm has not reckoned yet what comes of it, how high it is among that. */
export const isUnreckoned = ({ at_end: now, as_planned: then }: Pick<BuildState, 'at_end' | 'as_planned'>) =>
  !!then && !now

/** Whether the heap ends as it was meant to, near enough: whoever planned it so knew. */
export function isAsPlanned({ at_end: now, as_planned: then }: BuildState): boolean {
  if (!now || !then) return false
  const isNear =
    Math.abs(now.c_n_counted / then.c_n_counted - 1) < 0.02 &&
    Math.abs(now.moisture_pct - then.moisture_pct) < 1
  return isNear && faultOf(now) === faultOf(then)
}
