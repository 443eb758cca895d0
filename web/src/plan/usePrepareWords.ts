import type { PrepareNeed, StarterPlan, Unit } from '@/api/client'
import { useSay } from '@/words/useSay'

/** What a need is about: some of a material, in the unit it is said in. */
export interface NeedOf {
  material: string
  label?: string | null
  unit?: Unit
  measure_id?: string | null
}

/** What is to be prepared, in words. */
export function usePrepareWords() {
  const say = useSay()
  const { t } = say

  /** A step on the way to a starter. */
  function stepWords(
    starter: string,
    task: Pick<StarterPlan['tasks'][number], 'step' | 'times_a_day'> & { from?: string; to?: string },
  ) {
    const words = t(`step.${task.step}`, { name: t(`starter.${starter}.name`).toLowerCase() })
    if (!task.to || task.to === task.from) return words
    return `${words} ${often(task.times_a_day)} ${t('prepare.until', { day: say.day(task.to) })}`
  }

  /** Something that is to be ready. */
  function jobWords(need: Pick<PrepareNeed, 'job' | 'params'>, part: NeedOf | null) {
    const of = (name: string) => need.params[name] ?? 0
    const isBrewed = need.job === 'water' && of('in_starters') >= 0.5
    return t(
      `job.${isBrewed ? 'waterInStarters' : need.job}`,
      {
        name: part ? say.nameWithin(part.material, part.label) : '',
        missing: part?.unit ? say.amount(Math.ceil(of('missing') * 2) / 2, part.unit, part.measure_id) : '',
        litres: say.bulk(of('litres')),
        water: say.water(of('litres')),
        starters: say.water(of('in_starters')),
        hoursLow: say.fine(of('hours_low')),
        hoursHigh: say.fine(of('hours_high')),
        low: say.plain(of('low_cm')),
        high: say.length(of('high_cm')),
        metres: say.whole(of('metres')),
        // Rounded as a rule is said.
        feet: say.whole(Math.round((of('metres') * 3.28) / 10) * 10),
        hours: say.whole(of('hours')),
        moisture: say.whole(of('moisture_pct')),
        n: say.whole(of('n')),
      },
      of('n') || 1,
    )
  }

  function often(times?: number | null): string {
    if (!times) return ''
    if (times === 2) return t('prepare.twiceADay')
    return times >= 1 ? t('prepare.timesADay', times) : t('prepare.everyDays', Math.round(1 / times))
  }

  return { stepWords, jobWords }
}
