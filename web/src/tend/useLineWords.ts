import type { TodayLine } from '@/api/client'
import { usePrepareWords } from '@/plan/usePrepareWords'
import { useJudgeWords } from './useJudgeWords'

/** Lines of Today in words. */
export function useLineWords() {
  const { say, t, does, why, act } = useJudgeWords()
  const { stepWords, jobWords } = usePrepareWords()

  /** What is to be done; with the heap unless that stands beside it. */
  function bare(line: TodayLine): string {
    if (line.task) return does(line.task)
    if (line.cause) {
      const [first] = line.cause.remedy
      const words = first ? act(first) : t(`cause.name.${line.cause.code}`)
      return words.charAt(0).toUpperCase() + words.slice(1)
    }
    const of = line.prepare
    if (!of) return ''
    if (of.starter && of.step) return stepWords(of.starter, { step: of.step, times_a_day: of.times_a_day })
    return of.job
      ? jobWords({ job: of.job, params: of.params }, of.material ? { material: of.material } : null)
      : ''
  }
  const short = (line: TodayLine, isNamed = false) => (isNamed ? bare(line) : `${line.name}: ${bare(line)}`)

  /** Why it is to be done. */
  function reason(line: TodayLine): string {
    if (line.cause) return t('cause.headline', { is: t(`cause.is.${line.cause.code}`) })
    if (line.task) return why(line.task)
    return line.prepare ? t('today.for', { day: say.day(line.prepare.build_on) }) : ''
  }
  return { bare, short, reason }
}
