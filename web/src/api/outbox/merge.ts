import type { Fields } from './act'

/** What comes of two changes of one record: all of both, or the fields that both changed, each otherwise. */
export interface Merged {
  fields: Fields
  clash: string[]
}

/**
 * Two who changed one record without knowing of each other, the one from `base` to `mine`, the other to
 * `theirs`. What only one of them touched is as that one left it.
 */
export function merge(base: Fields, mine: Fields, theirs: Fields): Merged {
  const fields: Fields = {}
  const clash: string[] = []
  for (const name of Object.keys({ ...theirs, ...mine })) {
    const isMine = !alike(base[name], mine[name])
    const isTheirs = !alike(base[name], theirs[name])
    if (isMine && isTheirs && !alike(mine[name], theirs[name])) clash.push(name)
    fields[name] = isMine ? mine[name] : theirs[name]
  }
  return { fields, clash }
}

/** Whether two fields say the same; what is left out says nothing, as nothing does. */
export function alike(one: unknown, other: unknown): boolean {
  return text(one) === text(other)
}

function text(value: unknown): string {
  return JSON.stringify(value ?? null, (_, part: unknown) => {
    if (typeof part !== 'object' || part === null || Array.isArray(part)) return part
    const said = Object.entries(part).filter(([, inner]) => inner != null)
    return Object.fromEntries(said.sort(([a], [b]) => (a < b ? -1 : 1)))
  })
}
