<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, useTemplateRef } from 'vue'
import BeginBuild from '@/build/BeginBuild.vue'
import BuildCautions from '@/build/BuildCautions.vue'
import FitNote from './FitNote.vue'
import HeapSection from './HeapSection.vue'
import LayerTable from './LayerTable.vue'
import MethodSelect from './MethodSelect.vue'
import ShapeForm from './ShapeForm.vue'
import StateNote from '@/kit/StateNote.vue'
import { useBench } from '@/mix/useBench'
import { useMaterials } from '@/farm/useFarm'
import { useLayers } from './useLayers'
import { useMethod } from './useMethod'
import { useSay } from '@/words/useSay'
import { useWidth } from '@/kit/useWidth'
import { useDraft } from '@/mix/draft'
import { shortOf } from '@/mix/onHand'

const say = useSay()
const { t } = say
const store = useDraft()
const { byId } = useMaterials()
const { method } = useMethod()
const { answer, error, retry, lots } = useBench()

const box = useTemplateRef<HTMLElement>('box')
const width = useWidth(box, 480)

const plan = computed(() => answer.value?.layers ?? null)
const items = computed(() => store.draft.items)
const { names, hatches, rows, labels, bands } = useLayers(plan, items)

const overflow = computed(() => plan.value?.findings.find((found) => found.code === 'overflows'))

const headline = computed(() => {
  if (!answer.value && items.value.length) return t('nav.layers')
  if (!plan.value) return t('layers.empty')
  if (overflow.value) return t('layers.overflows', { litres: say.bulk(overflow.value.params.litres ?? 0) })
  const { build, cycles, height_cm } = plan.value
  const height = say.long(height_cm)
  if (build === 'mixed') return t('layers.fitsMixed', { loads: t('layers.loadsN', cycles), height })
  return t('layers.fits', {
    layers: t('layers.layersN', bands.value.length),
    cycles: t('layers.cyclesN', cycles),
    height,
  })
})

const remarks = computed(() =>
  (plan.value?.findings ?? [])
    .filter((found) => found.code !== 'overflows' && found.code !== 'room-left')
    .map((found) => ({ text: say.finding(found, names.value), severity: found.severity })),
)

const alike = computed(() =>
  t('layers.alike', { n: store.draft.heaps, kind: t(`layers.plural.${store.draft.heap.shape}`) }),
)

/** What the stock does not hold of it. */
const lacking = computed(() =>
  items.value.flatMap((part, index) => {
    const short = shortOf(part, lots.value, answer.value?.mix?.items[index]?.kg)
    if (!short) return []
    const missing = say.amount(Math.ceil(short.missing * 2) / 2, part.unit, part.measure_id)
    return [`${missing} ${say.within(names.value[index] ?? '')}`]
  }),
)

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
const beside = computed(() =>
  labels.value.map(({ number, text }) => ({ number, text: width.value < 420 ? '' : text })),
)
const materials = computed(() =>
  items.value.map((part) => byId.value.get(part.material)).filter((material) => material !== undefined),
)
/** Nothing holds it: what is drawn dotted is what it is planned to be. */
const isFree = computed(() => ['pile', 'windrow'].includes(store.draft.heap.shape))
</script>

<template>
  <header class="page-head">
    <div aria-live="polite">
      <h1>{{ headline }}</h1>
      <p>
        {{ store.draft.saved?.name }}
        <b v-if="store.draft.heaps > 1">{{ alike }}</b>
      </p>
    </div>
    <div class="acts">
      <ActButton to="/bench" variant="outlined" :label="t('layers.toBench')" />
      <ActButton v-if="plan" to="/card" variant="outlined" :label="t('card.open')" />
      <ActButton v-if="plan" to="/prepare" variant="outlined" :label="t('prepare.open')" />
      <BeginBuild v-if="plan || (error && items.length)" />
    </div>
  </header>
  <StateNote v-if="!answer" :error="error" @retry="retry" />
  <div v-else-if="plan" class="layers">
    <div class="setting">
      <MethodSelect />
      <ShapeForm
        :model-value="store.draft.heap"
        :method="method"
        :shapes="plan.fit.shapes"
        @update:model-value="store.setHeap"
      />
      <FitNote :plan="plan" />
    </div>
    <ul v-if="remarks.length || lacking.length" class="remarks">
      <li v-if="lacking.length" class="warn">
        {{ t('layers.lacking', { what: lacking.join(', ') }) }}
        <RouterLink to="/prepare">{{ t('prepare.open') }}</RouterLink>
      </li>
      <li v-for="remark in remarks" :key="remark.text" :class="remark.severity">{{ remark.text }}</li>
    </ul>
    <section ref="box" class="drawn" :aria-label="t('layers.toSection')">
      <header class="ruled">
        <h2>{{ t('layers.toSection') }}</h2>
        <span class="quiet small">
          {{ plan.vents.length ? t(`layers.vent.${plan.vent}`, plan.vents.length) : '' }}
          {{ t(isFree ? 'layers.planned' : 'layers.rim', { height: say.length(plan.rim_cm) }) }}
        </span>
      </header>
      <HeapSection
        :plan="plan"
        :heap="store.draft.heap"
        :hatches="hatches"
        :names="beside"
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

.setting,
.remarks {
  grid-column: 1 / -1;
}

.setting {
  display: grid;
  gap: 14px;
}

@media print {
  .setting {
    display: none;
  }
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
