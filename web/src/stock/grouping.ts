/** A long stock made short: only what is looked for, and in groups. */
import type { Kind, Lot } from '@/api/client'
import { plain } from './search'

export const GROUPINGS = ['none', 'kind', 'keeps'] as const
export type Grouping = (typeof GROUPINGS)[number]

export interface Group<T> {
  /** Its heading by name; none where all stand together. */
  key: string
  lots: T[]
}

/** Lots of which a name holds every word looked for, in any order. */
export function sifted<T>(lots: T[], sought: string, names: (lot: T) => string[]): T[] {
  const words = plain(sought).split(/\s+/).filter(Boolean)
  if (!words.length) return lots
  return lots.filter((lot) => {
    const text = plain(names(lot).join(' '))
    return words.every((word) => text.includes(word))
  })
}

type Kept = Pick<Lot, 'days_left' | 'amount'>

/** The groups of lots that hold any, in the order in which they are worked. */
export function grouped<T extends Kept>(
  lots: T[],
  by: Grouping,
  kindOf: (lot: T) => Kind | undefined,
): Group<T>[] {
  if (by === 'none') return lots.length ? [{ key: '', lots }] : []
  const keyOf = by === 'kind' ? (lot: T) => kindOf(lot) ?? 'other' : keepsOf
  const order: readonly string[] = by === 'kind' ? KINDS : KEEPS
  const groups = order.map((key) => ({ key, lots: lots.filter((lot) => keyOf(lot) === key) }))
  return groups.filter((group) => group.lots.length)
}

const KINDS = ['brown', 'bulking', 'green', 'household', 'manure', 'mineral', 'starter', 'liquid', 'other']
const KEEPS = ['soon', 'weeks', 'lasts', 'gone']

function keepsOf({ days_left, amount }: Kept): string {
  if (amount <= 0) return 'gone'
  if (days_left == null) return 'lasts'
  return days_left <= 3 ? 'soon' : 'weeks'
}
