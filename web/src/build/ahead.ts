import type { BuildAnew, BuildPortion, Heap, HeapListed, LayRequest } from '@/api/client'
import type { Act, Doing, Fields } from '@/api/outbox/act'
import { alike } from '@/api/outbox/merge'
import { v7 } from 'uuid'

/** What was laid, of a layer. */
export type Laid = Pick<LayRequest, 'step' | 'portions' | 'water_l' | 'new_items'>

/** Acts that are done after what the farm told last, and say which are this device's own since. */
const ENTRIES = ['heap-lay', 'heap-anew', 'heap-end', 'heap-undo', 'heap-take', 'heap-give-back']

/**
 * Something done to a heap, with the id of its entry given here: sent twice, it is done once. What others
 * did meanwhile is told from what was done here by `mine`.
 */
export function doneTo(
  heap: Pick<Heap, 'id' | 'head' | 'name'>,
  waiting: Act[],
  kind: Act['kind'],
  says: string,
  more: Fields = {},
): Doing {
  const mine = waiting.filter((act) => ENTRIES.includes(act.kind)).map((act) => act.body?.entry as string)
  const body = { entry: v7(), after: heap.head, mine, ...more }
  return { kind, of: heap.id, path: { id: heap.id }, body, says: `${heap.name}, ${says}` }
}

/** The heap that was begun on this device and that the farm does not know yet. */
export const begunHere = (waiting: Act[]) =>
  waiting.find(({ kind }) => kind === 'heap-begin')?.shows as Heap | undefined

/**
 * A heap with everything done to it that still waits. What is laid is shown at once;
 * what it comes to is only known when the server has summed it.
 */
export function withWaiting(heap: Heap, waiting: Act[]): Heap {
  const stands = [heap]
  for (const { kind, body, at } of waiting) {
    const now = stands.at(-1)!
    if (kind === 'heap-lay') stands.push(withLaid(now, body as unknown as Laid))
    else if (kind === 'heap-anew') stands.push(plannedAnew(now, body?.way as BuildAnew['way']))
    else if (kind === 'heap-end') stands.push(ended(now))
    else if (kind === 'heap-undo' && stands.length > 1) stands.pop()
    else if (kind === 'heap-take') stands.push({ ...now, taken_at: at })
    else if (kind === 'heap-give-back') stands.push({ ...now, taken_at: null })
  }
  return stands.at(-1)!
}

/** The heaps of a list as far as they are by what was done here: those begun here are the first of them. */
export function listWithWaiting(heaps: HeapListed[], acts: Act[]): HeapListed[] {
  const isGone = (id: string) => acts.some((act) => act.kind === 'heap-remove' && act.of === id)
  const begun = acts.flatMap(({ kind, shows }) => (kind === 'heap-begin' ? [shows as Heap] : []))
  const known = begun.filter(({ id }) => heaps.every((heap) => heap.id !== id))
  return [...known, ...heaps]
    .filter(({ id }) => !isGone(id))
    .map((heap) => {
      const laid = acts
        .filter(({ kind, of }) => kind === 'heap-lay' && of === heap.id)
        .map(({ body }) => (body as unknown as Laid).step + 1)
      return { ...heap, laid: Math.max(heap.laid, ...laid) }
    })
}

function withLaid(heap: Heap, { step, portions, water_l, new_items }: Laid): Heap {
  const { build } = heap
  const before = build.steps[step]
  if (!before || step > build.laid) return heap
  const litres = portions.map((one) => litresOf(before, one))
  const planned = before.planned ?? { portions: before.portions, water_l: before.water_l }
  const now = { ...before, portions, litres, water_l, planned }
  const steps = build.steps.map((one, at) => (at === step ? now : one))
  const laid = Math.max(build.laid, step + 1)
  const items = [...heap.items, ...(new_items ?? [])]
  const isAsPlanned = alike([portions, water_l], [planned.portions, planned.water_l])
  // Sums of what lay there before would be false now; how high it stands is known from the plan, and
  // how it ends where it goes by the plan.
  const at_end = isAsPlanned ? build.at_end : null
  const sums = { so_far: null, at_end, anew: [], height_cm: steps[laid - 1]!.top_cm }
  return { ...heap, items, laid, can_undo: true, build: { ...build, ...sums, steps, laid } }
}

function litresOf(step: Heap['build']['steps'][number], { item, amount }: BuildPortion): number {
  const at = step.portions.findIndex((one) => one.item === item)
  const before = step.portions[at]
  return before && before.amount > 0 ? (step.litres[at]! * amount) / before.amount : 0
}

/** The farm had told what the rest would be: taken up without signal, it is that. */
function plannedAnew(heap: Heap, way: BuildAnew['way']): Heap {
  const { build } = heap
  const anew = build.anew.find((one) => one.way === way)
  if (!anew) return heap
  const { at_end, size, height_cm: end_height_cm } = anew
  const steps = [...build.steps.slice(0, build.laid), ...anew.steps]
  const ends = { at_end, size, end_height_cm, anew: [] }
  return { ...heap, planned: steps.length, can_undo: true, build: { ...build, ...ends, steps } }
}

function ended(heap: Heap): Heap {
  const steps = heap.build.steps.slice(0, heap.build.laid)
  return { ...heap, planned: steps.length, build: { ...heap.build, steps, anew: [] } }
}
