import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type SuitAnswer, type SuitRequest } from '@/api/client'
import { key } from '@/api/keys'
import { useFitness } from './fitness'
import { useBench } from '@/mix/useBench'
import { useAbout, useMonth } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'

/** The methods, ranked for the mix on the bench and for what the person has and needs. */
export function useSuit() {
  const say = useSay()
  const { t } = say
  const { wishes } = useFitness()
  const { request: bench, answer } = useBench()
  const { about } = useAbout()

  const month = useMonth()
  const hasMix = computed(() => bench.value.recipe.items.length > 0)
  const body = computed<SuitRequest>(() => ({
    recipe: hasMix.value ? bench.value.recipe : null,
    container: wishes.container || null,
    hours_a_week: wishes.hours,
    weeks: wishes.weeks,
    air_c: month.value?.mean_c ?? null,
    rain_mm: month.value?.rain_mm ?? null,
    wants_hot: wishes.wantsHot,
    used_for: wishes.usedFor || null,
    only_chlorinated: wishes.onlyChlorinated,
  }))
  const query = useQuery({
    queryKey: key('suit', body),
    queryFn: ({ signal }) => answered(api.POST('/api/methods/suit', { body: body.value, signal })),
    enabled: computed(() => about.value !== undefined),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  })

  const names = computed(() => answer.value?.mix?.items.map((item) => say.nameWithin(item.material)) ?? [])

  /** A point as a sentence, its numbers rounded and in the person's units. */
  function words({ code, params }: SuitAnswer['points'][number], refused: number[]): string {
    const of = (key: string) => params[key] ?? 0
    return t(`suit.${code}`, {
      size: say.heap(of('litres')),
      made: say.heap(of('litres')),
      least: say.heap(of('least_l')),
      most: code === 'too-wet' ? say.whole(of('most_pct')) : say.heap(of('most_l')),
      hours: say.fine(of('hours')),
      mostHours: say.fine(of('most_h')),
      weeks: say.whole(of('weeks')),
      mostWeeks: say.whole(of('most_weeks')),
      ratio: say.whole(of('c_n')),
      low: say.fine(of('low') || of('hours_low')),
      high: say.fine(of('high') || of('hours_high')),
      moisture: say.whole(of('moisture_pct')),
      air: say.whole(of('air_pct')),
      leastAir: say.whole(of('least_pct')),
      coarse: say.whole(of('coarse_pct')),
      share: say.whole(of('share_pct') || of('structured_pct')),
      warmth: say.of(of('air_c'), 'temperature'),
      rain: say.of(of('rain_mm'), 'rain'),
      kept: say.whole(of('kept_pct')),
      names: refused.map((place) => names.value[place] ?? '').join(', '),
    })
  }

  return {
    ranked: query.data,
    error: query.error,
    retry: query.refetch,
    words,
    hasMix,
    mix: computed(() => answer.value?.mix ?? null),
  }
}
