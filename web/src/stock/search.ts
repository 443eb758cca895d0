import type { Material } from '@/api/client'

type Named = Pick<Material, 'id' | 'name' | 'name_es'> & Partial<Pick<Material, 'names' | 'names_es'>>

/** Materials whose names hold every word typed, best matches first; all of them if nothing is typed. */
export function search<T extends Named>(materials: T[], typed: string): T[] {
  const words = plain(typed).split(/\s+/).filter(Boolean)
  if (words.length === 0) return [...materials]
  const ranked = (rank: (material: T) => number) =>
    materials
      .map((material) => ({ material, rank: rank(material) }))
      .filter(({ rank }) => rank > 0)
      .sort((a, b) => b.rank - a.rank)
      .map(({ material }) => material)
  const found = ranked((material) => rankOf(material, words))
  // Nothing holds what was typed: perhaps a letter is wrong.
  return found.length ? found : ranked((material) => Number(isNearly(material, words)))
}

/** Whether every word typed is a word of a name, but for one letter. */
function isNearly({ name, name_es, names = [], names_es = [] }: Named, words: string[]): boolean {
  return [name, name_es, ...names, ...names_es].some((one) => {
    const parts = plain(one).split(/[^a-z0-9]+/)
    return words.every((word) => parts.some((part) => part === word || isOneOff(part, word)))
  })
}

/** One letter more, less, other, or two changed over; in words long enough to be told apart. */
function isOneOff(one: string, other: string): boolean {
  if (Math.min(one.length, other.length) < 4 || Math.abs(one.length - other.length) > 1) return false
  let at = 0
  while (at < one.length && one[at] === other[at]) at++
  const rest = (a: string, b: string, from: number, to: number) => a.slice(from) === b.slice(to)
  return (
    rest(one, other, at + 1, at + 1) ||
    rest(one, other, at + 1, at) ||
    rest(one, other, at, at + 1) ||
    (one[at] === other[at + 1] && one[at + 1] === other[at] && rest(one, other, at + 2, at + 2))
  )
}

function rankOf({ id, name, name_es, names = [], names_es = [] }: Named, words: string[]): number {
  const [first, ...others] = [name, name_es, id].map(plain)
  const called = [...names, ...names_es].map(plain)
  // What people call it to the letter stands before what only holds the words.
  if (called.includes(words.join(' '))) return 100
  return Math.max(rankIn([first!, ...others], words), rankIn(called, words) - 0.5)
}

function rankIn(names: string[], words: string[]): number {
  let rank = 0
  for (const word of words) {
    if (names.some((text) => text.startsWith(word))) rank += 3
    else if (names.some((text) => text.includes(` ${word}`) || text.includes(`-${word}`))) rank += 2
    else if (names.some((text) => text.includes(word))) rank += 1
    else return 0
  }
  return rank
}

/** Lower case without accents, so that "maiz" finds "maíz". */
export function plain(text: string): string {
  return text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()
}
