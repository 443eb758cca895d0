<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, ref, watch } from 'vue'
import BatchCard from './BatchCard.vue'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import PaperSelect from './PaperSelect.vue'
import StateNote from '@/kit/StateNote.vue'
import type { Paper } from './paper'
import { shoppingOf } from './shopping'
import { useBatches } from './useBatches'
import { useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { useStock } from '@/stock/useStock'

/** A course with several plots: the cards of all of them in one print, and one list of what to fetch. */
const say = useSay()
const { t } = say
const { batches, error, retry } = useBatches()
const { lots } = useStock()
const { hatchOf } = useNames()

const paper = ref<Paper>('a4')
const chosen = ref<string[]>([])
let isFirst = true
watch(
  batches,
  (all) => {
    if (!all || !isFirst) return
    isFirst = false
    chosen.value = all.map(({ id }) => id)
  },
  { immediate: true },
)
const plots = computed(() => (batches.value ?? []).filter(({ id }) => chosen.value.includes(id)))
const list = computed(() =>
  shoppingOf(plots.value, lots.value ?? []).map((one) => ({
    ...one,
    name: say.nameOf(one.material, one.label),
    hatch: hatchOf(one.material),
    takes: say.amount(one.amount, one.unit, one.measure_id),
    fetch:
      one.missing > 1e-6
        ? say.amount(Math.ceil(one.missing * 2) / 2, one.unit, one.measure_id)
        : t('plots.allHere'),
    isMissing: one.missing > 1e-6,
  })),
)
const print = () => window.print()
</script>

<template>
  <header class="page-head">
    <div>
      <h1>{{ t('plots.title', plots.length) }}</h1>
      <p>{{ t('plots.lead') }}</p>
    </div>
    <div class="acts">
      <ActButton to="/batches" variant="outlined" :label="t('nav.batches')" />
      <ActButton :label="t('plots.print')" :disabled="!plots.length" @click="print" />
    </div>
  </header>
  <StateNote v-if="!batches" :error="error" @retry="retry" />
  <template v-else>
    <fieldset>
      <legend class="only-read">{{ t('plots.which') }}</legend>
      <label v-for="batch in batches" :key="batch.id" class="check">
        <input v-model="chosen" type="checkbox" :value="batch.id" />
        {{ batch.name }}
      </label>
    </fieldset>
    <p v-if="!batches.length">{{ t('batches.noneHint') }}</p>
    <section v-if="list.length" class="list" :aria-label="t('plots.shopping')">
      <h2>{{ t('plots.shopping') }}</h2>
      <table>
        <thead>
          <tr>
            <th scope="col" colspan="2">{{ t('layers.material') }}</th>
            <th scope="col">{{ t('plots.takes') }}</th>
            <th scope="col">{{ t('plots.fetch') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in list" :key="one.key">
            <td><HatchSwatch :hatch="one.hatch" :size="26" /></td>
            <th scope="row">{{ one.name }}</th>
            <td>{{ one.takes }}</td>
            <td :class="{ missing: one.isMissing }">{{ one.fetch }}</td>
          </tr>
        </tbody>
      </table>
    </section>
    <PaperSelect v-if="plots.length" v-model="paper" />
    <BatchCard v-for="batch in plots" :key="batch.id" :batch="batch" :paper="paper" class="plot" />
  </template>
</template>

<style scoped>
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
  margin: 12px 0;
  padding: 0;
  border: 0;
}

.list {
  max-width: 720px;
  margin-bottom: 18px;
}

table {
  width: 100%;
  border-collapse: collapse;
  border-top: 1.5px solid var(--ink);
}

th,
td {
  padding: 6px 10px 6px 0;
  border-bottom: 1px solid var(--line);
  text-align: start;
  font-weight: 400;
}

thead th {
  font-size: 0.875rem;
  color: var(--ink-2);
}

tbody th,
.missing {
  font-weight: 640;
}

.plot + .plot {
  margin-top: 24px;
}

@media print {
  .acts,
  .page-head p,
  fieldset {
    display: none;
  }

  .plot {
    break-before: page;
  }
}
</style>
