/** Several good mixes of one stock, and what tells them apart. */
import type {
  FormulateAddition,
  FormulateAnswer,
  FormulateRequest,
  Kind,
  Lot,
  Measure,
  Method,
  Recipe,
} from '@/api/client'

export const AIMS = ['largest', 'use-soonest', 'cheapest', 'balanced', 'least-water'] as const
export type Aim = (typeof AIMS)[number]

/** How much of a lot must go in. */
export type PinKind = 'all' | 'exact' | 'least' | 'out'
export interface Pin {
  kind: PinKind
  /** In the lot's own unit, of `exact` and `least`. */
  amount: number
}

/** The most of the fresh mass that all lots of a kind may be, %. */
export interface Cap {
  kind: Kind
  most: number
}

/** What a person wants of a mix, beside its aim. */
export interface Wants {
  /** Least and most heap volume, litres. */
  size: [number, number]
  /** Whole measures, halves, or any amount. */
  step: 'whole' | 'half' | 'any'
  isCautious: boolean
  /** By the lot's id. */
  pins: Record<string, Pin>
  caps: Cap[]
  /** Materials that are good in a pinch, of which a person allows more: the most of the fresh mass, %. */
  raised: { material: string; most: number }[]
  /** Most water, litres; as much as is needed if none. */
  mostWater: number | null
}

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

/** Aims that tell something here: nothing is cheapest where nothing has a price. */
export function aimsFor(offers: Offer[]): Aim[] {
  return AIMS.filter((aim) => aim !== 'cheapest' || offers.some(({ lot }) => lot.price != null))
}

export interface Asked extends Wants {
  bucket?: Measure
  /** Materials known at the site beside the stock. */
  known: string[]
  /** The method it is meant for. */
  method?: string | null
  /** The windows of the method; the usual ones if none is chosen. */
  windows?: Pick<Method, 'c_n' | 'moisture_pct' | 'free_air_space_min_pct'> | null
}

export function requestOf(offers: Offer[], asked: Asked): FormulateRequest {
  const { size, step, isCautious, pins, caps, raised, mostWater } = asked
  const { bucket, known, windows, method } = asked
  const isWhole = step !== 'any'
  const measures = new Map(offers.map(({ measure, litres }) => [measure, litres]))
  if (bucket) measures.set('water', bucket.litres)
  return {
    format: 'zymarch-formulate/1',
    // It is asked for when somebody wants to know what limits a mix.
    without_worth: true,
    // Asked by several aims at once, which are named beside it.
    aim: AIMS[0],
    cautious: isCautious,
    known,
    target: {
      volume_l: size,
      c_n: windows?.c_n,
      moisture_pct: windows?.moisture_pct,
      free_air_space_min_pct: windows?.free_air_space_min_pct,
    },
    whole_measures: isWhole,
    whole_step: step === 'half' ? 0.5 : 1,
    water_measure: bucket && isWhole ? 'water' : null,
    water_max_l: mostWater,
    method,
    share_caps: [
      ...caps.map(({ kind, most }) => ({ kind, max_wet_pct: most })),
      ...raised.map(({ material, most }) => ({ material, max_wet_pct: most })),
    ],
    measures: [...measures].map(([id, litres]) => ({ id, litres })),
    stock: offers.map(({ lot, measure }) => ({
      material: lot.material,
      ...amountOf(lot),
      ...pinned(lot, pins[lot.id]),
      measure,
      urgency: urgencyOf(lot),
      age_days: lot.age_days,
      cost_per_kg: lot.price == null || lot.kg <= 0 ? null : (lot.price * lot.amount) / lot.kg,
      ...lot.own,
      tests: lot.tests,
    })),
  }
}

/** What was weighed is sure in kilograms; what was counted is sure in volume. */
function amountOf(lot: Lot) {
  if (lot.unit === 'kg') return { kg_available: lot.kg }
  return lot.unit === 'measure' ? { amount: lot.amount } : { litres_available: lot.litres }
}

function pinned(lot: Lot, pin: Pin | undefined) {
  if (!pin) return {}
  // A hair less than there is: the same sum done twice may differ in its last digit.
  const kg = (Math.min(pin.amount, lot.amount) / lot.amount) * lot.kg * (1 - 1e-12)
  if (pin.kind === 'out') return { kg_fixed: 0 }
  if (pin.kind === 'all') return { kg_fixed: lot.kg * (1 - 1e-12) }
  return pin.kind === 'exact' ? { kg_fixed: kg } : { kg_min: kg }
}

/**
 * An answer as a recipe, for its sums and workings: judged by the same windows, and
 * with what was counted still counted, since what was weighed is surer.
 */
export function recipeOf(
  answer: Pick<FormulateAnswer, 'items' | 'water_l'>,
  { stock, measures, target }: FormulateRequest,
): Recipe {
  return {
    format: 'zymarch-recipe/1',
    measures,
    water_l: answer.water_l,
    target: {
      c_n: target?.c_n,
      moisture_pct: target?.moisture_pct,
      free_air_space_min_pct: target?.free_air_space_min_pct,
    },
    items: stock.flatMap((lot, index) => {
      const { kg = 0, count } = answer.items[index] ?? {}
      if (kg <= 0) return []
      const {
        material,
        moisture_pct,
        n_pct,
        c_n,
        ash_pct,
        lignin_pct,
        density_kg_l,
        settle,
        chopped,
        age_days,
      } = lot
      const own = { moisture_pct, n_pct, c_n, ash_pct, lignin_pct, density_kg_l, settle, chopped, age_days }
      const isCounted = lot.kg_available == null && count != null
      const amount = isCounted ? { amount: count, measure: lot.measure } : { kg }
      return [{ material, ...amount, ...own, tests: lot.tests }]
    }),
  }
}

/** The mix that an addition makes possible, as a recipe with its names. */
export function additionRecipe(
  { material, and = [], mix_kg, water_l }: FormulateAddition,
  request: FormulateRequest,
  offers: Offer[],
  nameOf: (material: string, label?: string | null) => string,
): { recipe: Recipe; names: string[] } {
  const items = mix_kg.map((kg) => ({ kg })) as FormulateAnswer['items']
  const answer = { items, water_l } as FormulateAnswer
  const recipe = recipeOf(answer, request)
  const added = [{ material }, ...and].map((one, at) => ({
    material: one.material,
    kg: mix_kg[offers.length + at] ?? 0,
  }))
  return {
    recipe: { ...recipe, items: [...recipe.items, ...added] },
    names: [...namesOf(answer, offers, nameOf), ...added.map((one) => nameOf(one.material))],
  }
}

/** The names of what is in it, in the order of its recipe. */
export function namesOf(
  { items }: FormulateAnswer,
  offers: Offer[],
  nameOf: (material: string, label?: string | null) => string,
): string[] {
  return offers
    .filter((_, index) => (items[index]?.kg ?? 0) > 0)
    .map(({ lot }) => nameOf(lot.material, lot.label))
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
  request: FormulateRequest
}

/** What is alike in all of several mixes: the lots that go into each with the same amount. */
export function alikeIn(
  choices: Pick<Choice, 'answer'>[],
  offers: Offer[],
): { offer: Offer; amount: number }[] {
  const [first, ...others] = choices.map(({ answer }) => amountsOf(answer, offers))
  if (!first || !others.length) return []
  return first.filter(({ offer, amount }) =>
    others.every((other) =>
      other.some((one) => one.offer.lot.id === offer.lot.id && Math.abs(one.amount - amount) < 1e-6),
    ),
  )
}

export interface Answered {
  aim: Aim
  answer: FormulateAnswer
  request: FormulateRequest
}

/** Answers that are the same mix stand together; the first aim names them. */
export function distinct(answers: Answered[]): Choice[] {
  const choices: Choice[] = []
  for (const { aim, answer, request } of answers) {
    const same = choices.find((choice) => isSame(choice.answer, answer))
    if (same) same.aims.push(aim)
    else choices.push({ aims: [aim], answer, request })
  }
  return choices
}

function isSame(a: FormulateAnswer, b: FormulateAnswer): boolean {
  return (
    Math.abs(a.water_l - b.water_l) < 0.5 &&
    a.items.every((item, index) => Math.abs(item.kg - (b.items[index]?.kg ?? 0)) < 0.05)
  )
}

/** Why a mix is no other: what is used up and would be worth more, and what each lot left over would break. */
export interface Limits {
  /** Lots used up, with what one more step of each would add to the aim. */
  usedUp: { offer: Offer; worth: number }[]
  /** By what would be broken: the lots that are held back by it. */
  heldBack: { by: string; offers: Offer[] }[]
}

export function limitsOf(answer: FormulateAnswer, offers: Offer[], pins: Record<string, Pin>): Limits {
  const usedUp: Limits['usedUp'] = []
  const heldBack = new Map<string, Offer[]>()
  const full = new Set(answer.binding.filter(({ code }) => code === 'used-up').map(({ item }) => item))
  offers.forEach((offer, index) => {
    const item = answer.items[index]
    // What a person fixed is held back by the person.
    const pin = pins[offer.lot.id]
    if (!item || (pin && pin.kind !== 'least')) return
    if (full.has(index)) usedUp.push({ offer, worth: item.worth_of_more ?? 0 })
    else
      for (const by of (item.held_back ?? []).slice(0, 1))
        heldBack.set(by, [...(heldBack.get(by) ?? []), offer])
  })
  usedUp.sort((a, b) => Math.abs(b.worth) - Math.abs(a.worth))
  return { usedUp, heldBack: [...heldBack].map(([by, held]) => ({ by, offers: held })) }
}
