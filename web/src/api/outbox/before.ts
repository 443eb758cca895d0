import type { Act, Fields } from './act'

/** How acts on a heap were kept before they all waited in one place. */
interface Before {
  what: 'lay' | 'anew' | 'end' | 'undo'
  entry: string
  after: string
  at: string
  laid?: Fields
  way?: string
}

const KEPT_AS = /^zymarch-build-(.+)$/

/** What waited under an earlier version of the app, and is taken over once it is kept. */
export function fromBefore(): Act[] {
  try {
    return Object.keys(localStorage).flatMap((name) => {
      const heap = KEPT_AS.exec(name)?.[1]
      const found = heap ? (JSON.parse(localStorage.getItem(name) ?? '[]') as Before[]) : []
      return found.map((act, at) => taken(heap!, act, found.slice(0, at), found[0]!.after))
    })
  } catch {
    return []
  }
}

/** They are kept elsewhere by now. */
export function forgetBefore() {
  try {
    for (const name of Object.keys(localStorage)) if (KEPT_AS.test(name)) localStorage.removeItem(name)
  } catch {
    // Where nothing can be kept nothing is to be forgotten.
  }
}

function taken(heap: string, { what, entry, at, laid, way }: Before, mine: Before[], after: string): Act {
  const body = { entry, after, mine: mine.map((one) => one.entry), ...laid, ...(way ? { way } : {}) }
  const says = String(laid ? Number(laid.step) + 1 : what)
  // The entry's id is of the time in which it was done, and keeps its place.
  return { id: entry, kind: `heap-${what}`, at, person: null, of: heap, path: { id: heap }, body, says }
}
