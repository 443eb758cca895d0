import type { Confidence } from '@/api/client'
import { useSay } from '@/words/useSay'

/** How sure something is, in words that need no statistics. */
export function useSure() {
  const say = useSay()
  const { t } = say

  const between = ([low, high]: readonly number[]) =>
    t('sure.between', { low: say.whole(low ?? 0), high: say.whole(high ?? 0) })

  /** "7 times out of 10". */
  function chance(percent: number): string {
    if (percent < 5) return t('sure.hardly')
    if (percent >= 95) return t('sure.nearly')
    return t('sure.ofTen', { n: Math.round(percent / 10) })
  }

  const works = (sure: Confidence) => t('sure.works', { chance: chance(sure.in_workable_pct) })

  const ranges = (sure: Pick<Confidence, 'c_n' | 'moisture_pct'>) =>
    t('sure.ranges', { ratio: between(sure.c_n), water: between(sure.moisture_pct) })

  return { between, chance, works, ranges }
}
