import type { BatchPart, Kind, Lot, Measure, SayItem, SayUnknown, Unit } from '@/api/client'

/** How much was said, in the unit it is kept in. */
export interface SaidAmount {
  amount: number
  unit: Unit
  measure_id: string | null
}

/** What was said of an amount; nothing if it was not said in what. */
export function amountOf(said: Pick<SayItem, 'amount' | 'measure' | 'kg' | 'litres'>): SaidAmount | null {
  if (said.kg != null) return { amount: said.kg, unit: 'kg', measure_id: null }
  if (said.litres != null) return { amount: said.litres, unit: 'litre', measure_id: null }
  if (said.amount == null || said.measure == null || said.amount <= 0) return null
  return { amount: said.amount, unit: 'measure', measure_id: said.measure }
}

/**
 * A material in an amount as a part of a mix: with the figures of the lot that was named, or of
 * the first of it that is on hand; of one that is not in stock, with the book's.
 */
export function partFrom(
  { material, lot }: { material: string; lot?: string | null },
  said: SaidAmount,
  lots: Lot[],
  measures: Measure[],
): BatchPart {
  const found = lots.find((one) => (lot ? one.id === lot : one.material === material && one.amount > 0))
  const measure = measures.find((one) => one.id === said.measure_id)
  return {
    lot_id: found?.id ?? null,
    material,
    label: found?.label ?? null,
    ...said,
    measure_litres: measure?.litres ?? null,
    own: found?.own ?? {},
    tests: found?.tests ?? [],
  }
}

/** The text in pieces, those that were not understood marked. */
export function pieces(text: string, unknown: Pick<SayUnknown, 'from' | 'to'>[]) {
  const letters = [...text]
  const found: { text: string; isUnknown: boolean }[] = []
  let at = 0
  for (const { from, to } of [...unknown].sort((a, b) => a.from - b.from)) {
    if (from > at) found.push({ text: letters.slice(at, from).join(''), isUnknown: false })
    found.push({ text: letters.slice(from, to).join(''), isUnknown: true })
    at = to
  }
  if (at < letters.length) found.push({ text: letters.slice(at).join(''), isUnknown: false })
  return found
}

/** What a material is carried in where nobody said: scraps and fine things in a bucket, all else in a barrow. */
export function usualMeasure(kind: Kind, measures: Measure[]): Measure | undefined {
  const isFine = ['household', 'mineral', 'starter', 'liquid'].includes(kind)
  const of = (glyph: Measure['glyph']) => measures.find((one) => one.glyph === glyph)
  return (isFine ? of('bucket') : of('barrow')) ?? of('barrow') ?? of('bucket') ?? measures[0]
}
