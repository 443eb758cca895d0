import { computed, type Ref } from 'vue'
import type { BenchAnswer, Lot } from '@/api/client'
import { useDraft } from './draft'
import { useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'

/** The marks of the balance field: the lots of the mix, or of the whole stock while nothing is on the bench. */
export function useField(
  answer: Ref<BenchAnswer | undefined>,
  lots: Ref<Lot[] | undefined>,
  selected: Ref<number | null>,
) {
  const say = useSay()
  const store = useDraft()
  const { hatchOf } = useNames()

  const ofStock = computed(() =>
    (lots.value ?? []).map((lot, key) => ({
      key,
      name: say.nameOf(lot.material, lot.label),
      hatch: hatchOf(lot.material),
      kg: 0,
      moisture_pct: lot.figures.moisture_pct.value,
      c_n: lot.figures.c_n.value,
      isLiving: !lot.figures.inert && !lot.must_not_go_in,
    })),
  )
  const ofMix = computed(() =>
    (answer.value?.mix?.items ?? []).map((item, key) => {
      const part = store.draft.items[key]
      return {
        key,
        name: part ? say.nameOf(part.material, part.label) : item.material,
        hatch: part ? hatchOf(part.material) : '',
        kg: item.kg,
        moisture_pct: item.figures.moisture_pct.value,
        c_n: item.figures.c_n.value,
        isLiving: !item.figures.inert,
      }
    }),
  )
  const marks = computed(() =>
    (store.draft.items.length ? ofMix.value : ofStock.value).filter((mark) => mark.isLiving),
  )
  const chosen = computed(() => {
    const at = marks.value.findIndex((mark) => mark.key === selected.value)
    return at < 0 ? null : at
  })
  const mixPlace = computed(() => {
    const mix = answer.value?.mix
    return mix ? { moisture_pct: mix.moisture_pct, c_n: mix.c_n_counted } : null
  })
  const oneMore = computed(() =>
    selected.value === null ? null : (answer.value?.one_more[selected.value] ?? null),
  )

  const outline = computed(() => answer.value?.confidence?.outline ?? [])

  return { marks, chosen, mixPlace, oneMore, outline }
}
