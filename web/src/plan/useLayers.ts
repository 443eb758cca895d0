import { computed, type Ref } from 'vue'
import type { BatchPart, Layer, LayerPlan } from '@/api/client'
import type { LayerRow } from './LayerTable.vue'
import { type Band, bandsOf } from './section'
import { useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'

/** The layers of a plan in words: what goes on, how much, how much water, how high it then stands. */
export function useLayers(plan: Ref<LayerPlan | null>, items: Ref<BatchPart[]>) {
  const say = useSay()
  const { t } = say
  const { hatchOf } = useNames()

  const names = computed(() => items.value.map((part) => say.nameOf(part.material, part.label)))
  const hatches = computed(() => items.value.map((part) => hatchOf(part.material)))

  const bands = computed(() => (plan.value ? bandsOf(plan.value) : []))

  /** Kilograms to the gram, as the layers are divided. */
  const grams = (value: number) => say.kg(value / 1000)
  /** Whether water is said in buckets, so that the litres are worth saying too. */
  const isCarried = (litres: number) => litres >= (say.bucket()?.litres ?? Infinity) / 2

  function nameOf(layer: Layer): string {
    return layer.item == null ? t(`layers.beside.${layer.role}`) : (names.value[layer.item] ?? '')
  }

  function amountOf(layer: Layer): string {
    if (layer.item == null) return say.litres(layer.litres)
    const part = items.value[layer.item]
    if (!part || layer.measures == null) return grams(layer.grams)
    return say.carried(layer.measures, part.unit, part.measure_id)
  }

  function rowOf(layer: Layer, key: string, number: number | null, head: string): LayerRow {
    const litres = layer.water_ml / 1000
    return {
      key,
      number,
      head,
      hatch: layer.item == null ? 'hatch-twigs' : (hatches.value[layer.item] ?? ''),
      name: nameOf(layer),
      amount: amountOf(layer),
      kg: layer.item != null && layer.measures != null ? grams(layer.grams) : '',
      thickness: say.thick(layer.thickness_cm),
      top: say.long(layer.top_cm),
      water: litres > 0 ? say.water(litres) : t('layers.noWater'),
      litres: isCarried(litres) ? say.litres(litres) : '',
    }
  }

  /** What is said of a load, apart from its number and how high it stands: loads alike are told once. */
  const like = (band: Band) =>
    JSON.stringify(
      band.layers.map((index) => {
        const layer = plan.value!.layers[index]!
        return [layer.item, amountOf(layer), Math.round(layer.water_ml / 1000)]
      }),
    )

  const rows = computed<LayerRow[]>(() => {
    if (!plan.value) return []
    const { layers, build } = plan.value
    const all: LayerRow[] = []
    for (let at = 0; at < bands.value.length; at++) {
      const band = bands.value[at]!
      const isNew = bands.value[at - 1]?.cycle !== band.cycle
      if (build !== 'mixed' || band.cycle === null) {
        const head = !isNew
          ? ''
          : band.cycle === null
            ? t(`layers.role.${band.role}`)
            : t('layers.cycle', { n: band.cycle })
        all.push(rowOf(layers[band.layers[0]!]!, `${at}`, at + 1, head))
        continue
      }
      let last = at
      while (bands.value[last + 1]?.cycle != null && like(bands.value[last + 1]!) === like(band)) last++
      const to = bands.value[last]!
      const head =
        last > at
          ? t('layers.loadsAlike', { from: band.cycle, to: to.cycle })
          : t('layers.load', { n: band.cycle })
      band.layers.forEach((index, place) => {
        const row = rowOf(layers[index]!, `${at}-${place}`, null, place === 0 ? head : '')
        // A load stands as high as it is thrown, not as its materials would lie.
        const whole = { thickness: say.thick(band.to - band.from), top: say.long(to.to) }
        all.push({ ...row, ...(place === 0 ? whole : { thickness: '', top: '' }) })
      })
      at = last
    }
    return all
  })

  /** What stands beside each band of the drawing. */
  const labels = computed(() =>
    bands.value.map((band, index) => {
      const layer = plan.value!.layers[band.layers[0]!]!
      const isLoad = band.layers.length > 1
      return {
        number: isLoad ? (band.cycle ?? 0) : index + 1,
        text: isLoad ? '' : `${amountOf(layer)} ${say.within(nameOf(layer))}`,
      }
    }),
  )

  return { names, hatches, bands, rows, labels, nameOf, amountOf }
}
