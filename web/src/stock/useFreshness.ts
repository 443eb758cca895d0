import type { Lot } from '@/api/client'
import { once } from '@/kit/once'
import { useSay } from '@/words/useSay'

/** How long a lot keeps, in words. */
export const useFreshness = once('freshness', () => {
  const { t } = useSay()

  function keeps({ days_left, amount }: Lot): string {
    if (days_left == null) return t('fresh.lasts')
    if (amount <= 0) return t('fresh.gone')
    if (days_left < 0) return t('fresh.past', -days_left)
    if (days_left === 0) return t('fresh.today')
    return t('fresh.left', days_left)
  }

  const isPast = ({ days_left, amount }: Lot) => days_left != null && days_left < 0 && amount > 0
  const rescue = ({ rescue }: Lot) => (rescue ? t(`rescue.${rescue}`) : '')

  return { keeps, isPast, rescue }
})
