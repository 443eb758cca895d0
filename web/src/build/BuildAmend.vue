<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { BatchPart, BuildPortion, Heap, Lot, Material } from '@/api/client'
import AmountStepper from '@/kit/AmountStepper.vue'
import FormDialog from '@/kit/FormDialog.vue'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import { useHalfTyped } from '@/kit/useHalfTyped'
import MaterialPicker from '@/stock/MaterialPicker.vue'
import StockChoices from '@/plan/StockChoices.vue'
import { useBuildWords } from './useBuildWords'
import { useNames } from '@/farm/useFarm'
import { partFrom, usualMeasure } from '@/stock/sentence'
import { useStock } from '@/stock/useStock'
import { partOf } from '@/mix/draft'

/** What really went into a step: other amounts, other water, other things. */
const { heap, step } = defineProps<{
  heap: Heap
  /** Which step; none while nothing is changed. */
  step: number | null
}>()
const emit = defineEmits<{
  close: []
  laid: [step: number, portions: BuildPortion[], water: number, newItems: BatchPart[]]
}>()

const { say, t, items, besideOf, cautionsOf } = useBuildWords(toRef(() => heap))
const { hatchOf } = useNames()
const { lots, measures } = useStock()

interface Row {
  part: BatchPart
  /** Its place in the heap; none for what nobody had planned. */
  item: number | null
  amount: number
}
const rows = ref<Row[]>([])
const water = ref(0)
const isPicking = ref(false)

function begin() {
  if (step === null) return
  const { portions, water_l } = heap.build.steps[step]!
  rows.value = portions.map(({ item, amount }) => ({ part: items.value[item]!, item, amount }))
  water.value = water_l
  isPicking.value = false
}
const { ended } = useHalfTyped(
  () => step !== null,
  () => JSON.stringify([heap.id, step, heap.build.steps[step ?? 0]]),
  begin,
)

const now = computed(() => (step === null ? null : heap.build.steps[step]!))
const beside = computed(() => (now.value ? besideOf(now.value) : ''))

const shown = computed(() =>
  rows.value.map((row) => ({
    row,
    name: say.nameOf(row.part.material, row.part.label),
    hatch: hatchOf(row.part.material),
    unit: say.unitWord(row.part.unit, row.part.measure_id, row.amount),
    step: row.part.unit === 'measure' ? 0.5 : 1,
  })),
)

/** What to mind of what nobody had planned here. */
const minded = computed(() =>
  cautionsOf(
    rows.value
      .filter(({ item }) => !now.value?.portions.some((one) => one.item === item))
      .map(({ part }) => part),
  ),
)

/** What is in the heap's plan, but not in this step. */
const others = computed(() =>
  items.value
    .map((part, item) => ({ part, item, name: say.nameOf(part.material, part.label) }))
    .filter(({ item }) => !rows.value.some((row) => row.item === item)),
)
const moreLots = computed(() =>
  (lots.value ?? []).filter(
    (lot) =>
      lot.amount > 0 &&
      !items.value.some((part) => part.lot_id === lot.id) &&
      !rows.value.some((row) => row.part.lot_id === lot.id),
  ),
)

function add(part: BatchPart, item: number | null) {
  rows.value.push({ part, item, amount: 1 })
  isPicking.value = false
}
/** A neighbour's, or what somebody brings along: in no stock, and none the less in the heap. */
const foreign = ref<Material | null>(null)
function addForeign({ id, kind }: Material) {
  const measure = usualMeasure(kind, measures.value ?? [])
  const said = measure
    ? { amount: 0, unit: 'measure' as const, measure_id: measure.id }
    : { amount: 0, unit: 'kg' as const, measure_id: null }
  add(partFrom({ material: id }, said, [], measures.value ?? []), null)
  foreign.value = null
}
const addLot = (lot: Lot) => add(partOf(lot, measures.value ?? [], 0), null)

const carried = computed(() => say.bucket())
const waterCount = computed({
  get: () => Math.round((water.value / (carried.value?.litres ?? 1)) * 100) / 100,
  set: (count) => (water.value = count * (carried.value?.litres ?? 1)),
})

function done() {
  if (step === null) return
  const went = rows.value.filter(({ amount }) => amount > 0)
  const fresh = went.filter(({ item }) => item === null)
  const portions = went.map(({ item, amount, part }) => ({
    item: item ?? items.value.length + fresh.findIndex((row) => row.part === part),
    amount,
  }))
  const newItems = fresh.map(({ part }) => ({ ...part, amount: 0 }))
  ended()
  emit('laid', step, portions, Math.round(water.value * 1000) / 1000, newItems)
}
</script>

<template>
  <FormDialog
    :open="step !== null"
    class="build-amend"
    :header="t('build.amendTitle', { n: (step ?? 0) + 1 })"
    :does="t('build.wentIn')"
    @update:open="emit('close')"
    @save="done"
    @cancel="ended"
  >
    <ul class="rows">
      <li v-if="beside && rows.length === 0">{{ beside }}</li>
      <li
        v-for="{ row, name, hatch, unit, step: by } in shown"
        :key="`${row.part.material} ${row.part.lot_id}`"
      >
        <HatchSwatch :hatch="hatch" :size="32" />
        <b>{{ name }}</b>
        <AmountStepper
          v-model="row.amount"
          :name="name"
          :step="by"
          :quantity="say.quantityOf(row.part.unit)"
        />
        <span class="unit">{{ unit }}</span>
      </li>
      <li>
        <HatchSwatch hatch="hatch-water" :size="32" />
        <b>{{ t('bench.water') }}</b>
        <AmountStepper
          v-model="waterCount"
          :name="t('bench.water')"
          :step="carried ? 0.5 : 5"
          :quantity="carried ? null : 'volume'"
        />
        <span class="unit">{{
          carried ? say.unitWord('measure', carried.id, waterCount) : say.sign('volume')
        }}</span>
      </li>
    </ul>
    <button v-if="!isPicking" type="button" class="word-act" @click="isPicking = true">
      + {{ t('build.somethingElse') }}
    </button>
    <section v-else :aria-label="t('build.somethingElse')">
      <ul class="others">
        <li v-for="other in others" :key="other.item">
          <button type="button" class="word-act" @click="add(other.part, other.item)">
            + {{ other.name }}
          </button>
        </li>
      </ul>
      <StockChoices v-if="moreLots.length" :lots="moreLots" @pick="addLot" />
      <div class="other">
        <label for="other-material">{{ t('build.notInStock') }}</label>
        <MaterialPicker v-model="foreign" input-id="other-material" :is-first="false" />
        <p v-if="foreign?.must_not_go_in" class="fault" role="alert">{{ t('stock.refused') }}</p>
        <button v-else-if="foreign" type="button" class="word-act" @click="addForeign(foreign)">
          + {{ foreign.name }}
        </button>
      </div>
    </section>
    <ul v-if="minded.length" class="minded">
      <li v-for="line in minded" :key="line">{{ line }}</li>
    </ul>
    <p class="quiet small">{{ t('build.amendHint') }}</p>
  </FormDialog>
</template>

<style>
.build-amend.p-dialog {
  width: min(520px, calc(100vw - 16px));
}
</style>

<style scoped>
.rows {
  border-top: 1px solid var(--line);
}

.rows li {
  display: grid;
  grid-template-columns: 32px minmax(0, 1fr) 156px 64px;
  gap: 10px;
  align-items: center;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}

.other {
  margin-top: 10px;
}

.other label {
  display: block;
  margin-bottom: 4px;
  font-weight: 600;
}

.minded {
  padding-inline-start: 12px;
  border-inline-start: 3px solid var(--ink-2);
  font-size: 0.9375rem;
}

.rows :deep(.stepper) {
  width: 156px;
}

.unit {
  font-size: 0.9375rem;
  overflow-wrap: anywhere;
}

b {
  font-weight: 640;
  line-height: 1.2;
  overflow-wrap: anywhere;
}

@media (max-width: 480px) {
  .rows li {
    grid-template-columns: 32px minmax(0, 1fr) 62px;
  }

  .rows li :deep(.stepper) {
    grid-area: 2 / 2;
    width: 100%;
  }

  .unit {
    grid-area: 2 / 3;
  }
}
</style>
