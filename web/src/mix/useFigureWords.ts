import type { Figure, MixItem } from '@/api/client'
import { once } from '@/kit/once'
import { useSay } from '@/words/useSay'

/** The water and the C:N of a lot in one line, and its weight, each with where it came from unless it is the book's. */
export const useFigureWords = once('figurewords', () => {
  const say = useSay()
  const { t } = say

  const origin = (figure: Figure) =>
    figure.origin === 'measured' || figure.origin === 'own' ? ` (${t(`origin.${figure.origin}`)})` : ''

  function waterAndRatio({ moisture_pct, c_n }: MixItem['figures']): string {
    const water = say.whole(moisture_pct.value)
    const words = { water, ofWater: origin(moisture_pct), ratio: say.plain(c_n.value), ofRatio: origin(c_n) }
    return t(c_n.value > 0 ? 'stock.figures' : 'stock.noRatio', words)
  }

  /** A weight that rests on a density: "72 kg (measured)". */
  const weight = (kg: number, { density_kg_l }: MixItem['figures']) => say.kg(kg) + origin(density_kg_l)

  return { waterAndRatio, weight }
})
