/** Rules of thumb as people say them: "2 brown : 1 green by volume", "3:1 by weight", "50/30/20 %". */

export type By = 'volume' | 'weight'

/** One part as it was said: how many, and of what, if anything was said. */
export interface SaidPart {
  parts: number
  word: string
}

export interface SaidRule {
  by: By
  parts: SaidPart[]
}

/** The words of a language that a rule is told by. */
export interface RuleWords {
  weight: string[]
  volume: string[]
  /** Said beside what counts, and left out: "parts", "of". */
  filler: string[]
  /** From one up. */
  numbers: string[]
}

const MOST_PARTS = 12

/** Reads a rule; none if no numbers stand in it. */
export function readRule(text: string, words: RuleWords): SaidRule | null {
  let rest = ` ${text.toLowerCase()} `
  const take = (list: string[], put: (at: number) => string) =>
    list.forEach((word, at) => {
      rest = rest.replace(new RegExp(`(?<=[\\s\\d])${escaped(word)}(?=[\\s:;,/+.]|$)`, 'gu'), put(at))
    })
  const has = (list: string[]) => {
    const before = rest
    take(list, () => ' ')
    return rest !== before
  }
  const isWeight = has(words.weight)
  has(words.volume)
  take(words.numbers, (at) => `${at + 1}`)
  has(words.filler)
  const parts = [...rest.matchAll(/(\d+(?:[.,]\d+)?)\s*%?\s*([^\d:;/+%]*)/gu)]
    .map(([, number, word]) => ({
      parts: Number(number!.replace(',', '.')),
      word: word!.replace(/[.,]/g, ' ').trim().replace(/\s+/g, ' '),
    }))
    .filter(({ parts }) => parts > 0 && parts <= 1000)
    .slice(0, MOST_PARTS)
  return parts.length ? { by: isWeight ? 'weight' : 'volume', parts } : null
}

function escaped(word: string): string {
  return word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
}

/** What an unnamed part stands for, by its place: browns are said first, then greens, then manure. */
export const UNSAID = ['brown', 'green', 'manure'] as const

/** The kinds of material that may stand for a part. */
export const STANDS_FOR: Record<string, readonly string[]> = {
  brown: ['brown', 'bulking'],
  green: ['green', 'manure', 'household'],
  manure: ['manure'],
}

/** A place on the picture of a rule: C:N up, by logarithm, from below the least to above the greatest shown. */
export function ratioRange(ratios: number[], aim: readonly [number, number]): [number, number] {
  const all = [...ratios, ...aim].filter((ratio) => ratio > 0 && Number.isFinite(ratio))
  return [Math.min(...all) * 0.8, Math.max(...all) * 1.25]
}
