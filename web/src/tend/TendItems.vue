<script setup lang="ts">
import { computed, ref } from 'vue'
import type { BatchPart, Lot, Material } from '@/api/client'
import AmountStepper from '@/kit/AmountStepper.vue'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import { useNames } from '@/farm/useFarm'
import { partOf } from '@/mix/draft'
import StockChoices from '@/plan/StockChoices.vue'
import MaterialPicker from '@/stock/MaterialPicker.vue'
import { partFrom, usualMeasure } from '@/stock/sentence'
import { useStock } from '@/stock/useStock'
import { useSay } from '@/words/useSay'

/** What was put in: from stock, whose amounts follow, or brought along. */
const items = defineModel<BatchPart[]>({ required: true })
const say = useSay()
const { t } = say
const { hatchOf } = useNames()
const { lots, measures } = useStock()

const rows = computed(() =>
  items.value.map((part) => ({
    part,
    name: say.nameOf(part.material, part.label),
    hatch: hatchOf(part.material),
    unit: say.unitWord(part.unit, part.measure_id, part.amount),
    step: part.unit === 'measure' ? 0.5 : 1,
  })),
)
const others = computed(() =>
  (lots.value ?? []).filter((lot) => lot.amount > 0 && items.value.every((part) => part.lot_id !== lot.id)),
)

const put = (at: number, amount: number) =>
  (items.value = items.value.map((part, place) => (place === at ? { ...part, amount } : part)))
const addLot = (lot: Lot) => (items.value = [...items.value, partOf(lot, measures.value ?? [], 1)])
const foreign = ref<Material | null>(null)
function addForeign({ id, kind }: Material) {
  const measure = usualMeasure(kind, measures.value ?? [])
  const said = measure
    ? { amount: 1, unit: 'measure' as const, measure_id: measure.id }
    : { amount: 1, unit: 'kg' as const, measure_id: null }
  items.value = [...items.value, partFrom({ material: id }, said, [], measures.value ?? [])]
  foreign.value = null
}
</script>

<template>
  <ul v-if="rows.length" class="rows">
    <li v-for="(row, at) in rows" :key="at">
      <HatchSwatch :hatch="row.hatch" :size="28" />
      <span class="name">{{ row.name }}</span>
      <AmountStepper
        :name="row.name"
        :model-value="row.part.amount"
        :step="row.step"
        @update:model-value="(amount: number) => put(at, amount)"
      />
      <span class="unit">{{ row.unit }}</span>
    </li>
  </ul>
  <p v-else class="quiet">{{ t('tend.pickItems') }}</p>
  <StockChoices :lots="others" @pick="addLot" />
  <div class="field">
    <label for="tend-foreign">{{ t('tend.foreign') }}</label>
    <MaterialPicker
      v-model="foreign"
      input-id="tend-foreign"
      @update:model-value="(one: Material | null) => one && addForeign(one)"
    />
  </div>
</template>

<style scoped>
.rows {
  margin-bottom: 10px;
}

.rows li {
  display: grid;
  grid-template-columns: 28px minmax(0, 1fr) 132px auto;
  align-items: center;
  gap: 8px 10px;
  padding: 6px 0;
}

.unit {
  min-width: 4em;
}

@media (max-width: 480px) {
  .rows li {
    grid-template-columns: 28px minmax(0, 1fr) auto;
  }

  .rows .name {
    grid-column: 2 / -1;
  }

  .rows :deep(.stepper) {
    grid-column: 2;
  }
}
</style>
