import { v7 } from 'uuid'
import type { BuildAnew, BuildPortion, Heap, LayRequest } from '@/api/client'

/** Something done to a heap that the server has not confirmed yet. */
export interface Act {
  what: 'lay' | 'anew' | 'end' | 'undo'
  /** The id of its entry, given here: sent twice, it is done once. */
  entry: string
  /** The entry that was last when it was done. */
  after: string
  /** When, RFC 3339. */
  at: string
  /** What was laid, of a layer. */
  laid?: Pick<LayRequest, 'step' | 'portions' | 'water_l' | 'new_items'>
  /** What is kept where the rest is planned anew. */
  way?: BuildAnew['way']
}

/** An act done after all others that wait, or after what the server told last. */
export function actOf(
  heap: Pick<Heap, 'head'>,
  waiting: Act[],
  what: Act['what'],
  laid?: Act['laid'],
  at = new Date(),
): Act {
  const act: Act = { what, entry: v7(), after: waiting.at(-1)?.entry ?? heap.head, at: at.toISOString() }
  return laid ? { ...act, laid } : act
}

/** What is sent of an act. */
export const bodyOf = ({ entry, after, at, laid }: Act) => ({ entry, after, at, ...laid })

/**
 * A heap with everything done to it that still waits. What is laid is shown at once;
 * what it comes to is only known when the server has summed it.
 */
export function withWaiting(heap: Heap, waiting: Act[]): Heap {
  const stands = [heap]
  for (const act of waiting) {
    const now = stands.at(-1)!
    if (act.what === 'lay' && act.laid) stands.push(withLaid(now, act.laid))
    else if (act.what === 'end') stands.push(ended(now))
    else if (act.what === 'undo' && stands.length > 1) stands.pop()
  }
  return stands.at(-1)!
}

function withLaid(heap: Heap, { step, portions, water_l, new_items }: NonNullable<Act['laid']>): Heap {
  const { build } = heap
  const before = build.steps[step]
  if (!before || step > build.laid) return heap
  const litres = portions.map((one) => litresOf(before, one))
  const planned = before.planned ?? { portions: before.portions, water_l: before.water_l }
  const now = { ...before, portions, litres, water_l, planned }
  const steps = build.steps.map((one, at) => (at === step ? now : one))
  const laid = Math.max(build.laid, step + 1)
  const items = [...heap.items, ...(new_items ?? [])]
  // Sums of what lay there before would be false now; how high it stands is known from the plan.
  const sums = { so_far: null, anew: [], height_cm: steps[laid - 1]!.top_cm }
  return { ...heap, items, laid, can_undo: true, build: { ...build, ...sums, steps, laid } }
}

function litresOf(step: Heap['build']['steps'][number], { item, amount }: BuildPortion): number {
  const at = step.portions.findIndex((one) => one.item === item)
  const before = step.portions[at]
  return before && before.amount > 0 ? (step.litres[at]! * amount) / before.amount : 0
}

function ended(heap: Heap): Heap {
  const steps = heap.build.steps.slice(0, heap.build.laid)
  return { ...heap, planned: steps.length, build: { ...heap.build, steps, anew: [] } }
}

const keptAs = (heap: string) => `zymarch-build-${heap}`

/** Keeps what waits, so that neither a reload nor a dead battery loses it. */
export function keep(heap: string, waiting: Act[]) {
  try {
    if (waiting.length) localStorage.setItem(keptAs(heap), JSON.stringify(waiting))
    else localStorage.removeItem(keptAs(heap))
  } catch {
    // A browser that keeps nothing: the acts wait on the open page alone.
  }
}

/** What waited when the page was left. */
export function kept(heap: string): Act[] {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(keptAs(heap)) ?? '[]')
    return Array.isArray(found) ? (found as Act[]).filter((act) => act.entry && act.after) : []
  } catch {
    return []
  }
}
