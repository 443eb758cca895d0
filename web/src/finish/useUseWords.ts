import type { ApplyUse, KeptTo, UseTold } from '@/api/client'
import { useSay } from '@/words/useSay'

/** Uses of compost, and what is to be kept to after them, in words. */
export function useUseWords() {
  const say = useSay()
  const { t } = say

  /** "20 m², 2 cm deep" */
  function how(use: ApplyUse): string {
    const fine = (value: number) => say.exact(value)
    switch (use.kind) {
      case 'topdress':
        return t('use2.topdress', { area: fine(use.area_m2), depth: say.of(use.depth_cm, 'length') })
      case 'field':
        return t('use2.field', { area: fine(use.area_m2), rate: fine(use.t_per_ha) })
      case 'pits':
        return t('use2.pits', { count: fine(use.count), each: say.litres(use.litres_each) })
      case 'trees':
        return t(
          'use2.trees',
          { count: fine(use.count), each: say.litres(use.litres_each), times: fine(use.times_per_year) },
          use.times_per_year,
        )
      case 'mix':
        return t('use2.mix', {
          volume: say.litres(use.volume_l),
          compost: fine(use.compost_parts),
          other: fine(use.other_parts),
        })
      case 'extract':
        return t('use2.extract', { volume: say.litres(use.volume_l) })
    }
  }
  /** "14 March: 3 barrows to Carrot bed, 20 m², 2 cm deep" */
  const line = (one: UseTold) =>
    t(one.ground_name ? 'use2.line' : 'use2.lineNowhere', {
      day: say.day(one.at.slice(0, 10)),
      bulk: say.bulk(one.litres),
      where: one.ground_name ?? '',
      how: how(one.use),
    })
  const kept = ({ what, days, until }: KeptTo) =>
    t(`use2.kept.${what}`, { days: days ?? 0, until: until ? say.day(until) : '' })

  return { how, line, kept }
}
