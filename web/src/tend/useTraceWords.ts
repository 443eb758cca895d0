import { computed, type Ref } from 'vue'
import type { Trace } from '@/api/client'
import { useLogWords } from './useLogWords'

const DAY = 86_400_000

/** The heat trace in words, for who does not see it and for whoever reads it aloud. */
export function useTraceWords(trace: Ref<Trace | undefined>) {
  const { say, t } = useLogWords()

  const built = () =>
    trace.value?.built_at ? Date.parse(trace.value.built_at) : (trace.value?.span_ms[0] ?? 0)
  const day = (ms: number) => Math.floor((ms - built()) / DAY)

  const inWords = computed(() => {
    const of = trace.value
    if (!of) return ''
    const core = of.lines.find(({ place }) => place === 'core')?.points ?? []
    const words: string[] = []
    const hottest = core.reduce<number[] | null>(
      (best, point) => (!best || point[1]! > best[1]! ? point : best),
      null,
    )
    if (!hottest) words.push(t('trace.nothingRead'))
    else {
      words.push(t('trace.hottest', { temp: say.of(hottest[1]!, 'temperature'), day: day(hottest[0]!) }))
      const last = core.at(-1)!
      words.push(
        t('trace.last', {
          temp: say.of(last[1]!, 'temperature'),
          when: say.time(new Date(last[0]!).toISOString()),
        }),
      )
    }
    const longest = Math.max(0, ...of.runs.map(({ hours }) => hours))
    const days = Math.floor(longest / 24)
    if (days >= 1) words.push(t('trace.run', { days: t('unit.days', days) }))
    const turns = of.events.filter(({ kind }) => kind === 'turn').length
    if (turns) words.push(t('trace.turns', { n: turns }, turns))
    const now = of.band.at(-1)
    if (now)
      words.push(
        t('trace.expectedNow', {
          low: say.of(now[1]!, 'temperature'),
          high: say.of(now[2]!, 'temperature'),
        }),
      )
    return words.join(' ')
  })

  return { inWords, day }
}
