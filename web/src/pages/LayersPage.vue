<script setup lang="ts">
import Button from 'primevue/button'
import { computed, useTemplateRef } from 'vue'
import BuildCautions from '@/components/BuildCautions.vue'
import HeapSection from '@/components/HeapSection.vue'
import LayerTable, { type LayerRow } from '@/components/LayerTable.vue'
import ShapeForm from '@/components/ShapeForm.vue'
import StateNote from '@/components/StateNote.vue'
import { useBench } from '@/composables/useBench'
import { useMaterials } from '@/composables/useFarm'
import { useSay } from '@/composables/useSay'
import { useWidth } from '@/composables/useWidth'
import { useDraft } from '@/stores/draft'

const say = useSay()
const { t } = say
const store = useDraft()
const { hatchOf, byId } = useMaterials()
const { answer, error, retry } = useBench()

const box = useTemplateRef<HTMLElement>('box')
const width = useWidth(box, 480)

const plan = computed(() => answer.value?.layers ?? null)
const items = computed(() => store.draft.items)
const names = computed(() => items.value.map((part) => say.nameOf(part.material, part.label)))
const hatches = computed(() => items.value.map((part) => hatchOf(part.material)))

const overflow = computed(() => plan.value?.findings.find((found) => found.code === 'overflows'))

const headline = computed(() => {
  if (!plan.value) return t('layers.empty')
  if (overflow.value) return t('layers.overflows', { litres: say.litres(overflow.value.params.litres ?? 0) })
  return t('layers.fits', {
    layers: t('layers.layersN', plan.value.layers.length),
    cycles: t('layers.cyclesN', plan.value.cycles),
    height: say.length(plan.value.height_cm),
  })
})

const hint = computed(() => {
  if (!plan.value || !overflow.value) return ''
  return t('layers.overflowsHint', {
    capacity: say.litres(plan.value.capacity_l),
    // Rounded as the two others are, so that the three agree.
    heap: say.litres(Math.round(plan.value.capacity_l) + Math.round(overflow.value.params.litres ?? 0)),
    shape: t(`layers.${store.draft.heap.shape}Word`),
    height: say.length(Math.ceil(overflow.value.params.height_cm ?? 0)),
  })
})

const remarks = computed(() =>
  (plan.value?.findings ?? [])
    .filter((found) => found.code !== 'overflows')
    .map((found) => ({ text: say.finding(found, names.value), severity: found.severity })),
)

/** Kilograms to the gram, as the layers are divided. */
const grams = (value: number) => say.kg(value / 1000)

const rows = computed<LayerRow[]>(() =>
  (plan.value?.layers ?? []).map((layer, index, all) => {
    const part = items.value[layer.item]
    const inMeasures = part && layer.measures != null
    return {
      number: index + 1,
      cycle: layer.cycle,
      isFirst: index === 0 || all[index - 1]!.cycle !== layer.cycle,
      hatch: hatches.value[layer.item] ?? '',
      name: names.value[layer.item] ?? '',
      amount: inMeasures ? say.amount(layer.measures!, part.unit, part.measure_id) : grams(layer.grams),
      kg: inMeasures ? grams(layer.grams) : '',
      thickness: say.length(layer.thickness_cm),
      top: say.length(layer.top_cm),
      water: layer.water_ml > 0 ? say.water(layer.water_ml / 1000) : t('layers.noWater'),
      litres: isCarried(layer.water_ml / 1000) ? say.litres(layer.water_ml / 1000) : '',
    }
  }),
)

/** Whether water is said in buckets, so that the litres are worth saying too. */
const isCarried = (litres: number) => litres >= (say.bucket()?.litres ?? Infinity) / 2

const totals = computed(() =>
  items.value.map((part, index) => ({
    name: names.value[index] ?? '',
    hatch: hatches.value[index] ?? '',
    amount: say.amount(part.amount, part.unit, part.measure_id),
    kg: part.unit === 'kg' ? '' : say.kg(answer.value?.mix?.items[index]?.kg ?? 0),
  })),
)

const total = computed(() => `${say.water(store.draft.water_l)} (${say.litres(store.draft.water_l)})`)
/** On a narrow sheet the numbers alone, so that the heap itself stays large. */
const labels = computed(() =>
  rows.value.map(({ number, amount, name }) => ({
    number,
    text: width.value < 420 ? '' : `${amount} ${name.toLowerCase()}`,
  })),
)
const materials = computed(() =>
  items.value.map((part) => byId.value.get(part.material)).filter((material) => material !== undefined),
)
const print = () => window.print()
</script>

<template>
  <header class="page-head">
    <div aria-live="polite">
      <h1>{{ headline }}</h1>
      <p>{{ hint || store.draft.saved?.name }}</p>
    </div>
    <div class="acts">
      <Button as="router-link" to="/bench" variant="outlined" :label="t('layers.toBench')" />
      <Button v-if="plan" :label="t('layers.print')" @click="print" />
    </div>
  </header>
  <StateNote v-if="!answer" :error="error" @retry="retry" />
  <div v-else-if="plan" class="layers">
    <ShapeForm :model-value="store.draft.heap" @update:model-value="store.setHeap" />
    <ul v-if="remarks.length" class="remarks">
      <li v-for="remark in remarks" :key="remark.text" :class="remark.severity">{{ remark.text }}</li>
    </ul>
    <section ref="box" class="drawn" :aria-label="t('layers.toSection')">
      <header class="ruled">
        <h2>{{ t('layers.toSection') }}</h2>
        <span class="quiet small">{{ t('layers.rim', { height: say.length(plan.rim_cm) }) }}</span>
      </header>
      <HeapSection
        :plan="plan"
        :heap="store.draft.heap"
        :hatches="hatches"
        :names="labels"
        :width="width"
        :height="540"
      />
    </section>
    <section class="listed">
      <LayerTable :rows="rows" :totals="totals" :water="total" />
      <BuildCautions :materials="materials" />
    </section>
  </div>
</template>

<style scoped>
.layers {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.15fr);
  gap: 18px 28px;
  margin-top: 16px;
}

.layers > :deep(.shape),
.remarks {
  grid-column: 1 / -1;
}

.remarks li {
  padding: 3px 0 3px 12px;
  border-inline-start: 3px solid var(--ink-2);
}

.remarks li + li {
  margin-top: 6px;
}

.remarks .warn,
.remarks .fail {
  border-color: var(--alarm);
  font-weight: 600;
}

.drawn {
  min-width: 0;
}

@media (min-width: 860px) {
  .drawn {
    position: sticky;
    top: 16px;
    align-self: start;
  }
}

@media (max-width: 859px) {
  .layers {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media print {
  .acts {
    display: none;
  }
}
</style>
