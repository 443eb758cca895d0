/** Several good mixes of one stock, and what tells them apart. */
import type { FormulateAnswer, FormulateRequest, Lot, Measure } from '@/api/client'

export const AIMS = ['largest', 'use-soonest', 'balanced', 'least-water'] as const
export type Aim = (typeof AIMS)[number]

/** A lot, and the container or weight it is stepped in: by what name, and what one step holds. */
export interface Offer {
  lot: Lot
  measure: string
  litres: number
  /** What one step is in the lot's own unit. */
  step: number
}

/** Lots that may go in, each with its step: its measure, or so much by weight or volume. */
export function offersOf(lots: Lot[], measures: Measure[], stepOf: (lot: Lot) => number): Offer[] {
  return lots
    .filter((lot) => lot.amount > 0 && !lot.must_not_go_in)
    .map((lot) => {
      const measure = measures.find((one) => one.id === lot.measure_id)
      if (lot.unit === 'measure' && measure)
        return { lot, measure: `measure-${measure.id}`, litres: measure.litres, step: 1 }
      const step = stepOf(lot)
      const litres = lot.unit === 'kg' ? step / lot.figures.density_kg_l.value : step
      return { lot, measure: `lot-${lot.id}`, litres, step }
    })
}

/** How soon a lot should be used: the fewer days are left, the more; what lasts hardly counts. */
export function urgencyOf({ days_left }: Pick<Lot, 'days_left'>): number {
  if (days_left == null) return 0.01
  return 1 / (1 + Math.max(0, days_left))
}

export interface Asked {
  aim: Aim
  /** Least and most heap volume, litres. */
  size: [number, number]
  isWhole: boolean
  bucket?: Measure
}

export function requestOf(offers: Offer[], { aim, size, isWhole, bucket }: Asked): FormulateRequest {
  const measures = new Map(offers.map(({ measure, litres }) => [measure, litres]))
  if (bucket) measures.set('water', bucket.litres)
  return {
    format: 'zymarch-formulate/1',
    aim,
    target: { volume_l: size, free_air_space_min_pct: 35 },
    whole_measures: isWhole,
    water_measure: bucket && isWhole ? 'water' : null,
    measures: [...measures].map(([id, litres]) => ({ id, litres })),
    stock: offers.map(({ lot, measure }) => ({
      material: lot.material,
      kg_available: lot.kg,
      measure,
      urgency: urgencyOf(lot),
      ...lot.own,
      tests: lot.tests,
    })),
  }
}

/** The amounts of an answer in each lot's own unit; none of what is left out. */
export function amountsOf({ items }: FormulateAnswer, offers: Offer[]): { offer: Offer; amount: number }[] {
  return offers
    .map((offer, index) => {
      const count = items[index]?.count ?? 0
      const amount = count * offer.step
      // Whole counts come a hair beside the whole.
      return { offer, amount: Math.round(amount * 1e6) / 1e6 }
    })
    .filter(({ amount }) => amount > 0)
}

export interface Choice {
  aims: Aim[]
  answer: FormulateAnswer
}

/** Answers that are the same mix stand together; the first aim names them. */
export function distinct(answers: { aim: Aim; answer: FormulateAnswer }[]): Choice[] {
  const choices: Choice[] = []
  for (const { aim, answer } of answers) {
    const same = choices.find((choice) => isSame(choice.answer, answer))
    if (same) same.aims.push(aim)
    else choices.push({ aims: [aim], answer })
  }
  return choices
}

function isSame(a: FormulateAnswer, b: FormulateAnswer): boolean {
  return (
    Math.abs(a.water_l - b.water_l) < 0.5 &&
    a.items.every((item, index) => Math.abs(item.kg - (b.items[index]?.kg ?? 0)) < 0.05)
  )
}
