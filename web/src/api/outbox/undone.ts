import type { Act } from './act'
import type { ActKind } from './kinds'

/** What takes back what, of one and the same thing. */
const TAKES_BACK: Partial<Record<ActKind, ActKind>> = {
  'lot-restore': 'lot-remove',
  'test-restore': 'test-remove',
  'sorted-out-restore': 'sorted-out-remove',
  'measure-restore': 'measure-remove',
  'heap-restore': 'heap-remove',
  'heap-take-back': 'heap-tend',
  'heap-bring-back': 'heap-take-back',
}

/** Acts without those that a later one took back, and without that one: what comes of all of them. */
export function standing(acts: Act[]): Act[] {
  const stands: Act[] = []
  for (const act of acts) {
    const undone = TAKES_BACK[act.kind]
    const at = stands.findLastIndex((one) => one.kind === undone && thingOf(one) === thingOf(act))
    if (undone && at >= 0) stands.splice(at, 1)
    else stands.push(act)
  }
  return stands
}

/** What it is done to: an entry of a heap, or else a record. */
const thingOf = ({ kind, path, body }: Act) =>
  (kind === 'heap-tend' ? (body?.entry as string) : path.entry) ?? path.id

/** What is done to a heap on build day and is undone by its place: always the last of them. */
export const ON_BUILD_DAY: readonly ActKind[] = ['heap-lay', 'heap-anew', 'heap-end']

/** The later act that takes one back, if one of these does: without the first it would take back something else. */
export function takerOf(act: Act, acts: Act[]): Act | undefined {
  const behind = acts.slice(acts.findIndex(({ id }) => id === act.id) + 1).filter(({ of }) => of === act.of)
  let done = ON_BUILD_DAY.includes(act.kind) ? 1 : 0
  return behind.find((one) => {
    if (done && ON_BUILD_DAY.includes(one.kind)) done += 1
    if (done && one.kind === 'heap-undo') return --done === 0
    return TAKES_BACK[one.kind] === act.kind && thingOf(one) === thingOf(act)
  })
}
