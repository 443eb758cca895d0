import { useFormatLocale } from './useFormatLocale'
import type { Finding, Measure, Unit } from '@/api/client'
import {
  isHandy,
  sayAgainst,
  sayAmount,
  sayCount,
  sayCubic,
  sayDate,
  sayExact,
  sayMoney,
  sayTime,
  sayWhole,
} from './say'
import type { Quantity } from './units'
import { useMeasureList, useNames } from '@/farm/useFarm'
import { once } from '@/kit/once'
import { i18n } from './i18n'
import { usePerson } from '@/farm/person'
import { useUnits } from './useUnits'

/** A finger is not quite two centimetres broad, a hand eight to nine. */
const THICK: [number, string][] = [
  [1, 'sprinkle'],
  [2.7, 'finger'],
  [4.5, 'two'],
  [6.5, 'three'],
  [9.5, 'hand'],
]

/** Findings whose litres are water: said in buckets, where stuff is said in what it is wheeled in. */
const OF_WATER = ['too-dry', 'too-wet']

/** Amounts, names and findings in words, in the language, units and decimals of the person. */
export const useSay = once('say', () => {
  const { t } = i18n.global
  const locale = useFormatLocale()
  const units = useUnits()
  const person = usePerson()
  const { measures } = useMeasureList()
  const { nameOf, within } = useNames()

  const measureOf = (id?: string | null): Measure | undefined => measures.value?.find((one) => one.id === id)

  /** The quantity that an amount without a container is of. */
  const quantityOf = (unit: Unit): Quantity | null =>
    unit === 'kg' ? 'mass' : unit === 'litre' ? 'volume' : null

  /** The word for a unit after a number: "barrows", "kg", "L". */
  function unitWord(unit: Unit, measureId: string | null | undefined, count: number): string {
    const quantity = quantityOf(unit)
    if (quantity) return units.sign(quantity)
    const measure = measureOf(measureId)
    if (!measure) return ''
    return count > 0 && count <= 1 ? measure.name : measure.plural
  }

  /** "4 barrows", "12 kg". */
  function amount(value: number, unit: Unit, measureId?: string | null): string {
    const quantity = quantityOf(unit)
    if (quantity) return units.say(value, quantity)
    return `${sayCount(value, locale.value)} ${unitWord(unit, measureId, Math.abs(value))}`
  }

  /** An amount in the container that it fills: what is no handy part of a barrow is said in buckets. */
  function carried(value: number, unit: Unit, measureId?: string | null): string {
    const own = measureOf(measureId)
    if (unit !== 'measure' || !own || isHandy(value)) return amount(value, unit, measureId)
    const litres = value * own.litres
    const smaller = (measures.value ?? [])
      .filter((one) => one.litres < own.litres && litres / one.litres >= 0.75)
      .reduce<Measure | null>((best, one) => (best && best.litres > one.litres ? best : one), null)
    const into = value >= 1 ? own : smaller
    if (!into) return units.say(litres, 'volume')
    const count = Math.max(0.5, Math.round((litres / into.litres) * 2) / 2)
    return t('amount.about', { amount: amount(count, 'measure', into.id) })
  }

  /**
   * A loose volume as it is fetched: in barrows or buckets, to the half; in litres where there are none. What
   * has to do is rounded up.
   */
  function bulk(litres: number, hasToDo = false): string {
    const [into] = (measures.value ?? [])
      .filter((one) => litres / one.litres >= 0.75)
      .sort((one, other) => rank(other) - rank(one) || other.litres - one.litres)
    if (!into) return units.say(Number(litres.toPrecision(2)), 'volume')
    const count = litres / into.litres
    const nearest = count < 10 ? Math.round(count * 2) / 2 : Number(count.toPrecision(2))
    const rounded =
      hasToDo && nearest < count ? Math.ceil(count < 10 ? count * 2 : count) / (count < 10 ? 2 : 1) : nearest
    return amount(rounded, 'measure', into.id)
  }
  /** What stuff is wheeled in, before what it is carried in. */
  const rank = ({ glyph }: Measure) => (glyph === 'barrow' ? 2 : glyph === 'bucket' ? 1 : 0)

  /** The container water is carried in, if the farm has a bucket. */
  const bucket = () => measures.value?.find((one) => one.glyph === 'bucket')

  /** "5 buckets", or litres where there is no bucket or it is less than half a one. */
  function water(litres: number): string {
    const carried = bucket()
    if (!carried || litres < carried.litres / 2) return units.say(litres, 'volume')
    const count = Math.round((litres / carried.litres) * 2) / 2
    return amount(count, 'measure', carried.id)
  }

  /** A finding as a sentence, its numbers rounded and in the person's units. */
  function finding(found: Finding, names: string[]): string {
    const params: Record<string, string> = {}
    for (const [name, value] of Object.entries(found.params)) {
      params[name] = paramOf(name, value, found.code)
    }
    if (found.item != null) params.name = names[found.item] ?? ''
    const needed = found.code === 'too-far-from-air' ? found.params.columns : undefined
    const text = t(`finding.${found.code}`, params)
    return needed === undefined ? text : `${text} ${t('section.needColumns', needed)}`
  }

  function paramOf(name: string, value: number, code: string): string {
    if (name === 'litres') return OF_WATER.includes(code) ? water(value) : bulk(value)
    if (name.endsWith('_l')) return heap(value)
    if (name.endsWith('_cm')) return whole(value)
    return sayAmount(value, locale.value)
  }

  /** A length to the whole centimetre or inch, and never none. */
  const whole = (cm: number) =>
    `${sayWhole(Math.max(1, units.shown(cm, 'length')), locale.value)} ${units.sign('length')}`

  /** How thick a layer lies, by the hand where it is thin. */
  function thick(cm: number): string {
    const by = THICK.find(([most]) => cm < most)?.[1]
    return by ? t(`thick.${by}`) : whole(cm)
  }

  /** A quantity to two significant digits, with its unit; in grams or millilitres where it is less than one. */
  function fineOf(value: number, quantity: 'mass' | 'volume'): string {
    const fine = (number: number) => sayExact(Number(number.toPrecision(2)), locale.value)
    if (person.units === 'metric' && value < 1)
      return `${fine(value * 1000)} ${quantity === 'mass' ? 'g' : 'mL'}`
    return `${fine(units.shown(value, quantity))} ${units.sign(quantity)}`
  }

  /** A heap's volume with its unit, as "0.9 m³". */
  const heap = (litres: number) => `${cubic(litres)} ${units.sign('heap')}`
  const cubic = (litres: number) => sayCubic(units.shown(litres, 'heap') * 1000, locale.value)

  return {
    t,
    locale,
    amount,
    carried,
    bulk,
    unitWord,
    quantityOf,
    water,
    bucket,
    finding,
    measureOf,
    nameOf,
    /** A name as it stands within a sentence. */
    within,
    nameWithin: (material: string, label?: string | null) => within(nameOf(material, label)),
    heap,
    cubic,
    kg: (value: number) => units.say(value, 'mass'),
    litres: (value: number) => units.say(value, 'volume'),
    length: (value: number) => units.say(value, 'length'),
    /** A length to the whole. */
    long: whole,
    thick,
    of: (value: number, quantity: Quantity) => units.say(value, quantity),
    fineOf,
    sign: units.sign,
    count: (value: number) => sayCount(value, locale.value),
    plain: (value: number) => sayAmount(value, locale.value),
    whole: (value: number) => sayWhole(value, locale.value),
    /** A whole number beside its edges: finer where it would else be said as one that it misses. */
    against: (value: number, edges: readonly [number, number]) => sayAgainst(value, edges, locale.value),
    exact: (value: number) => sayExact(value, locale.value),
    /** Two significant digits, for figures that are small or uncertain. */
    fine: (value: number) => sayExact(Number(value.toPrecision(2)), locale.value),
    /** Money in the farm's own, to the hundredth. */
    money: (value: number) => `${sayMoney(value, locale.value)} ${person.currency}`.trim(),
    day: (text: string) => sayDate(text, locale.value),
    time: (text: string) => sayTime(text, locale.value),
  }
})
