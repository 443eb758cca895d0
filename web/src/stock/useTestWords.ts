import type { FieldTest, TestAnswer } from '@/api/client'
import { useSay } from '@/words/useSay'
import { useUnits } from '@/words/useUnits'

/** What a test found, in one line. */
export function useTestWords() {
  const say = useSay()
  const units = useUnits()
  const { t } = say

  const density = (value: number) => `${say.fine(units.shown(value, 'density'))} ${units.sign('density')}`

  function ofAnswer(answer: TestAnswer): string {
    switch (answer.kind) {
      case 'weigh':
        return density(answer.density_kg_l ?? 0)
      case 'drying':
        return t(`steadiness.${answer.steadiness}`, { water: say.whole(answer.moisture_pct ?? 0) })
      case 'lab':
        return t('tests.lab', {
          ratio: say.fine(answer.c_n ?? 0),
          low: say.fine(answer.c_n_band?.[0] ?? 0),
          high: say.fine(answer.c_n_band?.[1] ?? 0),
          nitrogen: say.fine(answer.n_pct ?? 0),
        })
      case 'squeeze':
        return t('tests.water', { water: say.whole(answer.moisture_pct ?? 0) })
      case 'bucket': {
        const air = answer.free_air_space_pct
        const packed = t('tests.packed', { density: density(answer.density_kg_l ?? 0) })
        return air == null ? packed : `${packed}, ${t('tests.air', { air: say.whole(air) })}`
      }
      default:
        return answer.verdict ? t(`beans.${answer.verdict}`) : t('tests.growing', answer.days ?? 0)
    }
  }

  const result = (test: FieldTest) => (test.answer ? ofAnswer(test.answer) : t('tests.unreadable'))

  return { result, ofAnswer, density }
}
