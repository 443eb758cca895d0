<script setup lang="ts">
import { computed } from 'vue'
import type { Amount } from '@/api/client'
import NumberField from '@/kit/NumberField.vue'
import { useMeasureList } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'

/** So much of something, counted in a container, poured or weighed. What is set on it goes to the number. */
defineOptions({ inheritAttrs: false })
const {
  id,
  label,
  invalid = false,
} = defineProps<{
  id: string
  /** What the choice of a unit is called. */
  label: string
  invalid?: boolean
  described?: string
}>()
const amount = defineModel<Partial<Amount>>({ required: true })
const { sign } = useSay()
const { measures } = useMeasureList()

const units = computed(() => [
  ...(measures.value ?? []).map((one) => ({ value: one.id, label: one.plural })),
  { value: 'litre', label: sign('volume') },
  { value: 'kg', label: sign('mass') },
])
const unit = computed({
  get: () =>
    amount.value.unit === 'measure' ? (amount.value.measure_id ?? '') : (amount.value.unit ?? 'litre'),
  set: (of: string) => {
    const isPlain = of === 'litre' || of === 'kg'
    amount.value = isPlain
      ? { ...amount.value, unit: of, measure_id: null }
      : { ...amount.value, unit: 'measure', measure_id: of }
  },
})
const quantity = computed(() =>
  amount.value.unit === 'litre' ? 'volume' : amount.value.unit === 'kg' ? 'mass' : undefined,
)
const value = computed({
  get: () => amount.value.amount ?? null,
  set: (number: number | null) => (amount.value = { ...amount.value, amount: number ?? undefined }),
})
</script>

<template>
  <span class="amount">
    <NumberField
      :id="id"
      v-bind="$attrs"
      v-model="value"
      :quantity="quantity"
      :max="1e6"
      :invalid="invalid"
      :aria-describedby="described"
      empty
    />
    <select v-model="unit" :aria-label="label">
      <option v-for="one in units" :key="one.value" :value="one.value">{{ one.label }}</option>
    </select>
  </span>
</template>

<style scoped>
.amount {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 8px;
}

select {
  min-height: 44px;
  min-width: 0;
  padding: 6px 8px;
  border: 1px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--sheet);
  color: inherit;
  font: inherit;
}
</style>
