import type { CompareFeature } from '@/api/client'
import type { useSay } from '@/words/useSay'

type Say = ReturnType<typeof useSay>

/** How each figure of a comparison is said; in the order of the table. */
const SAID: Record<CompareFeature, (say: Say, value: number) => string> = {
  volume: (say, value) => say.litres(Math.round(value)),
  'c-n': (say, value) => `${say.exact(Number(value.toFixed(1)))} : 1`,
  moisture: (say, value) => `${say.whole(value)} %`,
  hottest: (say, value) => say.of(value, 'temperature'),
  'days-hot': (say, value) => say.whole(value),
  turns: (say, value) => say.whole(value),
  water: (say, value) => say.litres(Math.round(value)),
  work: (say, value) => `${say.exact(Number(value.toFixed(1)))} h`,
  cost: (say, value) => say.money(value),
  'days-to-harvest': (say, value) => say.whole(value),
  yield: (say, value) => `${say.whole(value)} %`,
  'nitrogen-kept': (say, value) => `${say.whole(value)} %`,
}
export const FEATURES = Object.keys(SAID) as CompareFeature[]

/** A figure as it stands in the table; a dash where nobody knows. */
export const featureText = (say: Say, feature: CompareFeature, value: number | null): string =>
  value === null ? '–' : SAID[feature](say, value)
