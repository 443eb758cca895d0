import type { ActTold, Cause, ClueTold, HeatShown, Readiness, Task } from '@/api/client'
import { once } from '@/kit/once'
import { useSay } from '@/words/useSay'

/** What is judged of a heap, in words: clues, causes, acts, tasks, recorded heat and ripeness. */
export const useJudgeWords = once('judge-words', () => {
  const say = useSay()
  const { t } = say

  /** A figure in every unit that a word may name it in. */
  const figures = (value: number | null | undefined) => {
    const figure = value ?? 0
    const days = Math.max(0, Math.round(figure))
    return {
      temp: say.of(figure, 'temperature'),
      pct: `${say.whole(figure)}\u00a0%`,
      ratio: say.whole(figure),
      days: t('unit.days', days),
      n: say.whole(figure),
      h: say.whole(figure),
      m3: say.heap(figure * 1000),
      cm: say.length(figure),
      mm: say.of(figure, 'rain'),
      k: say.of(figure, 'swing'),
    }
  }

  const clue = (of: ClueTold) => t(`clue.${of.code}`, figures(of.value))

  /** "pour on 5 buckets while you turn". */
  function act(of: ActTold): string {
    const isWater = of.act === 'water' || of.act === 'spread-and-wet'
    const amount = of.litres == null ? t('act.enough') : isWater ? say.water(of.litres) : say.bulk(of.litres)
    return t(`act.${of.act}`, {
      amount,
      material: of.material ? say.nameWithin(of.material) : '',
      cm: of.depth_cm == null ? '' : say.length(of.depth_cm),
      day: of.until ? say.day(of.until.slice(0, 10)) : '',
    })
  }

  /** The acts of a remedy as one sentence. */
  function remedy(of: Cause): string {
    const [first = '', ...more] = of.remedy.map(act)
    const sentence = [first, ...more].join('; ')
    return `${sentence.charAt(0).toUpperCase()}${sentence.slice(1)}.`
  }

  const strength = (of: Cause) =>
    t(`cause.${of.weight >= 0.75 ? 'strong' : of.weight >= 0.5 ? 'likely' : 'possible'}`)

  const does = (of: Task) =>
    of.kind === 'turn' && of.of
      ? t('task.turnOf', { n: of.nth, of: of.of })
      : of.kind === 'water' && of.litres
        ? t('task.waterWith', { amount: say.water(of.litres) })
        : t(`task.does.${of.kind}`)

  /** Why, and the water that goes with it. */
  function why(of: Task): string {
    const words = [t(`task.why.${of.why}`, figures(of.value))]
    if (of.kind === 'turn' && of.litres) words.push(t('task.andWater', { amount: say.water(of.litres) }))
    return words.join(' ')
  }

  /** "3 more days at 55 °C and over, and 2 more turns". */
  function still({ still_hours, still_turns, least_c }: HeatShown): string {
    const hours =
      still_hours > 0
        ? t('hot.stillHours', {
            days: daysOf(still_hours),
            temp: say.of(least_c, 'temperature'),
          })
        : ''
    const turns = still_turns > 0 ? t('hot.stillTurns', { n: still_turns }, still_turns) : ''
    return hours && turns ? t('hot.and', { a: hours, b: turns }) : hours || turns
  }

  /** Hours as whole days and halves. */
  function daysOf(hours: number): string {
    const days = Math.round(hours / 12) / 2
    return t('hot.days', { n: say.count(days) }, days)
  }

  const ripe = (of: Readiness['told'][number]) =>
    t(`ripe.${of.speaks_for ? 'for' : 'against'}.${of.of}`, figures(of.value))

  return { say, t, clue, act, remedy, strength, does, why, still, daysOf, ripe, figures }
})
