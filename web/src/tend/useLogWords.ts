import type { BatchPart, LogTold, Tended } from '@/api/client'
import { once } from '@/kit/once'
import { useSay } from '@/words/useSay'
import { useUnits } from '@/words/useUnits'

/** The log in words. */
export const useLogWords = once('log-words', () => {
  const say = useSay()
  const units = useUnits()
  const { t } = say

  /** A temperature as it was read: to the tenth. */
  const temp = (celsius: number) =>
    `${say.exact(Math.round(units.shown(celsius, 'temperature') * 10) / 10)}\u00a0${units.sign('temperature')}`
  const listed = (group: string, words: readonly string[]) =>
    words.map((word) => t(`tend.${group}.${word}`)).join(', ')
  const parts = (items: BatchPart[]) =>
    items
      .map(
        (part) =>
          `${say.amount(part.amount, part.unit, part.measure_id)} ${say.nameWithin(part.material, part.label)}`,
      )
      .join(', ')

  /** "57 °C in the core", "turned into bay 2", "5 buckets of water". */
  function plain(what: Tended): string {
    switch (what.kind) {
      case 'temperature':
        return t(`tend.at.${what.place ?? 'core'}`, { temp: temp(what.temp_c) })
      case 'stick':
        return t('tend.stickIs', { feel: t(`tend.feel.${what.feel}`) })
      case 'squeeze':
        return t('tend.squeezeIs', { feel: t(`tend.squeezed.${what.feel}`) })
      case 'smell':
        return t('tend.smellIs', { smell: listed('smelled', what.smell) })
      case 'seen':
        return t('tend.seenIs', { signs: listed('sign', what.signs) })
      case 'height':
        return t('tend.heightIs', { height: say.length(what.height_cm) })
      case 'turn':
        return what.to ? t('tend.turnedTo', { to: what.to }) : t('tend.turned')
      case 'water':
        return t(`tend.watered.${what.spread ?? 'even'}`, { amount: say.water(what.litres) })
      case 'add':
      case 'feed':
        return t(`tend.${what.kind}Is`, { items: parts(what.items) })
      case 'cover':
        return what.with ? t(`tend.covered.${what.with}`) : t('tend.coveredBare')
      case 'rain':
        return t('tend.rainIs', { amount: say.of(what.mm, 'rain') })
      case 'aerate':
        return t(`tend.aerated.${what.how}`)
      case 'worms':
        return what.kg ? t('tend.wormsOf', { amount: say.kg(what.kg) }) : t('tend.kind.worms')
      case 'closed-bag':
        return t('tend.bagIs', { smell: listed('smelled', what.smell) })
      case 'germination':
        return t('tend.seedsAre', {
          up: what.up,
          sown: what.sown,
          controlUp: what.control_up,
          controlSown: what.control_sown,
        })
      case 'bean-test':
        return t('tend.beansGrew', { grew: t(`tend.grew.${what.grew}`) })
      case 'liquid':
        return t('tend.liquidIs', { amount: say.water(what.litres) })
      default:
        return t(`tend.kind.${what.kind}`)
    }
  }

  /** The same with the person's own words; a bare note is its words. */
  function said(what: Tended, note?: string | null): string {
    if (what.kind === 'note') return note ?? ''
    return plain(what)
  }

  /** An entry of the log, whatever it is. */
  function told(entry: LogTold): string {
    if (entry.what) return said(entry.what, entry.note)
    if (entry.pack) {
      const { name, readings, range_c, source } = entry.pack
      const [low, high] = (range_c ?? []).map((celsius) => say.of(celsius, 'temperature'))
      const words = t(`tend.pack.${source}`, { name, n: readings }, readings)
      return low && high ? t('tend.packRange', { words, low, high }) : words
    }
    if (entry.kind === 'laid') return t('done.laid', { step: (entry.step ?? 0) + 1 })
    return t(`done.${entry.kind}`, { amount: entry.litres ? say.bulk(entry.litres) : '' })
  }

  return { ...say, say, t, temp, plain, said, told }
})
