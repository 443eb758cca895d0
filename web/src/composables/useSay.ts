import { useI18n } from 'vue-i18n'
import { useFormatLocale } from '@/composables/useFormatLocale'
import type { Finding, Measure, Unit } from '@/api/client'
import { sayAmount, sayCount, sayCubic, sayExact, sayWhole } from '@/figures/say'
import { useMaterials } from './useFarm'
import { useStock } from './useStock'

/** Amounts, names and findings in words, in the language and decimals of the page. */
export function useSay() {
  const { t } = useI18n()
  const locale = useFormatLocale()
  const { measures } = useStock()
  const { nameOf } = useMaterials()

  const measureOf = (id?: number | null): Measure | undefined => measures.value?.find((one) => one.id === id)

  /** The word for a unit after a number: "barrows", "kg", "L". */
  function unitWord(unit: Unit, measureId: number | null | undefined, count: number): string {
    if (unit === 'kg') return t('unit.kg')
    if (unit === 'litre') return t('unit.litre')
    const measure = measureOf(measureId)
    if (!measure) return ''
    return count > 0 && count <= 1 ? measure.name : measure.plural
  }

  /** "4 barrows", "12 kg". */
  function amount(value: number, unit: Unit, measureId?: number | null): string {
    const number = unit === 'measure' ? sayCount(value, locale.value) : sayAmount(value, locale.value)
    return `${number} ${unitWord(unit, measureId, Math.abs(value))}`
  }

  /** The container water is carried in, if the farm has a bucket. */
  const bucket = () => measures.value?.find((one) => one.glyph === 'bucket')

  /** "5 buckets", or litres where there is no bucket or it is less than half a one. */
  function water(litres: number): string {
    const carried = bucket()
    if (!carried || litres < carried.litres / 2)
      return `${sayAmount(litres, locale.value)} ${t('unit.litre')}`
    const count = Math.round((litres / carried.litres) * 2) / 2
    return amount(count, 'measure', carried.id)
  }

  /** A finding as a sentence, its numbers rounded. */
  function finding(found: Finding, names: string[]): string {
    const params: Record<string, string> = {}
    for (const [name, value] of Object.entries(found.params)) params[name] = sayAmount(value, locale.value)
    if (found.item != null) params.name = names[found.item] ?? ''
    return t(`finding.${found.code}`, params)
  }

  return {
    t,
    locale,
    amount,
    unitWord,
    water,
    bucket,
    finding,
    measureOf,
    nameOf,
    kg: (value: number) => t('amount.kg', { n: sayAmount(value, locale.value) }),
    litres: (value: number) => t('amount.litre', { n: sayAmount(value, locale.value) }),
    count: (value: number) => sayCount(value, locale.value),
    plain: (value: number) => sayAmount(value, locale.value),
    whole: (value: number) => sayWhole(value, locale.value),
    cubic: (litres: number) => sayCubic(litres, locale.value),
    exact: (value: number) => sayExact(value, locale.value),
  }
}
