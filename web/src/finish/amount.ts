import type { Amount, Measure } from '@/api/client'

/** An amount as it is begun: in what the farm wheels, else in litres. */
export function begun(measures: readonly Measure[] | undefined): Partial<Amount> {
  const barrow =
    measures?.find(({ glyph }) => glyph === 'barrow') ?? measures?.find(({ glyph }) => glyph === 'bucket')
  return barrow ? { unit: 'measure', measure_id: barrow.id } : { unit: 'litre' }
}

/** The same, if it says how much. */
export function whole(amount: Partial<Amount>): Amount | null {
  const { amount: value, unit, measure_id } = amount
  return value === undefined || !unit ? null : { amount: value, unit, measure_id: measure_id ?? null }
}
