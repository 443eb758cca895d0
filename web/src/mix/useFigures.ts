import { computed, type Ref } from 'vue'
import type { BenchAnswer, MixAnswer } from '@/api/client'
import { windowsOf } from './field'
import { useSay } from '@/words/useSay'

/** From this wettest share on it is straw and stalks that hold the water. */
const LOOSE_PCT = 72

/** One figure of the mix. */
export interface BenchFigure {
  key: string
  label: string
  /** Its name where there is little room. */
  short: string
  shown: string
  unit: string
  words: string
  note?: string
  value: number
  scale: [number, number]
  aim: [number, number]
  off: boolean
}

/** The four figures of the bench: large, on their scales with the aim, and in words. */
export function useFigures(answer: Ref<BenchAnswer | undefined>) {
  const say = useSay()
  const { t } = say

  /** Water still to add: to the middle while it is dry, the room left while it is right, the excess while it is wet. */
  function waterLeft({ water_to_add_l, standing }: MixAnswer): string | undefined {
    const { aim, high } = water_to_add_l
    if (standing.moisture === 'right')
      return high < 1 ? undefined : t('bench.waterRoom', { litres: say.litres(high) })
    const isDry = aim > 0
    return t(isDry ? 'bench.waterMore' : 'bench.waterLess', { litres: say.litres(isDry ? aim : -high) })
  }

  return computed<BenchFigure[]>(() => {
    const got = answer.value?.mix
    if (!got) return []
    const { aim } = windowsOf(got)
    const [low, high] = aim.ratio
    const air = got.windows.free_air_space_min_pct
    const size = answer.value?.size ?? 'big-enough'
    const locked = got.findings.find((found) => found.code === 'available-c-n-differs')?.params['locked_pct']
    const isAiry = got.findings.some((found) => found.code === 'too-airy')
    const { c_n, moisture, free_air_space, structure } = got.standing
    const off = (standing: string) => standing !== 'right'
    // Straw and stalks hold more water than dung does before they choke.
    const isLoose = moisture === 'above' && (got.wet_max_pct ?? 0) >= LOOSE_PCT
    return [
      {
        key: 'c_n',
        label: t('bench.ratio'),
        short: t('bench.short.ratio'),
        shown: off(c_n) ? say.against(got.c_n_counted, aim.ratio) : say.whole(got.c_n_counted),
        unit: ': 1',
        words: t(`stand.c_n.${c_n}`, { low: say.whole(low), high: say.whole(high) }),
        note: locked === undefined ? undefined : t('bench.locked', { locked: say.whole(locked) }),
        value: Math.log(got.c_n_counted),
        scale: [Math.log(8), Math.log(90)] as [number, number],
        aim: [Math.log(low), Math.log(high)] as [number, number],
        off: off(c_n),
      },
      {
        key: 'moisture',
        label: t('bench.moisture'),
        short: t('bench.short.moisture'),
        shown: off(moisture) ? say.against(got.moisture_pct, aim.moisture) : say.whole(got.moisture_pct),
        unit: '%',
        words: t(`stand.moisture.${isLoose ? 'above-loose' : moisture}`),
        note: waterLeft(got),
        value: got.moisture_pct,
        scale: [20, 90] as [number, number],
        aim: [...aim.moisture] as [number, number],
        off: off(moisture),
      },
      {
        key: 'free_air_space',
        label: t('bench.air'),
        short: t('bench.short.air'),
        shown: off(free_air_space)
          ? say.against(got.free_air_space_pct, [air, 100])
          : say.whole(got.free_air_space_pct),
        unit: '%',
        words: t(`stand.air.${free_air_space}`, { low: say.whole(air) }),
        note:
          structure !== 'right'
            ? t('bench.frame', { share: say.whole(got.structured_pct ?? 0) })
            : isAiry
              ? t('bench.airy')
              : undefined,
        value: got.free_air_space_pct,
        scale: [0, 100] as [number, number],
        aim: [air, 100] as [number, number],
        off: off(free_air_space) || off(structure),
      },
      {
        key: 'heap_volume',
        label: t('bench.size'),
        short: t('bench.short.size'),
        shown: say.cubic(got.heap_volume_l),
        unit: say.sign('heap'),
        words: t(`stand.size.${size}`),
        value: got.heap_volume_l,
        scale: [0, 2500] as [number, number],
        aim: [1000, 2500] as [number, number],
        off: size === 'too-small-to-heat' || size === 'too-thin-to-heat',
      },
    ]
  })
}
