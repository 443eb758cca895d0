<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useLimits } from '@/api/useLimits'
import NumberField from './NumberField.vue'
import { useUnits } from '@/words/useUnits'
import type { Quantity } from '@/words/units'

/** An amount stepped with large buttons or typed. */
const {
  name,
  label,
  step = 1,
  max,
  quantity,
} = defineProps<{
  name: string
  /** What its field is called, if not the amount of that. */
  label?: string
  /** In the units shown. */
  step?: number
  /** Highest; without it, any amount the tool takes. */
  max?: number
  /** What it is of, if it is not counted in a container. */
  quantity?: Quantity | null
}>()
const amount = defineModel<number>({ required: true })
const emit = defineEmits<{ picked: [] }>()

const { t } = useI18n()
const limits = useLimits()
const most = computed(() => max ?? limits.of('amount').max)
const units = useUnits()

function by(steps: number) {
  // A quarter left over is kept: 2¼ steps to 3¼.
  const now = quantity ? units.shown(amount.value, quantity) : amount.value
  const next = Math.round((now + steps * step) * 1000) / 1000
  amount.value = Math.min(most.value, Math.max(0, quantity ? units.kept(next, quantity) : next))
}
</script>

<template>
  <div class="stepper" role="group" :aria-label="t('amount.of', { name })" @focusin="emit('picked')">
    <button type="button" :aria-label="t('amount.less', { name })" :disabled="amount <= 0" @click="by(-1)">
      −
    </button>
    <NumberField
      :model-value="amount"
      :max="most"
      :step="step"
      :quantity="quantity ?? undefined"
      :aria-label="label ?? t('amount.of', { name })"
      @update:model-value="(value) => (amount = value ?? 0)"
    />
    <button type="button" :aria-label="t('amount.more', { name })" :disabled="amount >= most" @click="by(1)">
      +
    </button>
  </div>
</template>

<style scoped>
.stepper {
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr) 44px;
  align-items: center;
  width: 132px;
  border: 1px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--sheet);
}

.stepper button {
  height: 44px;
  border: 0;
  background: none;
  font-size: 1.375rem;
  font-weight: 600;
  cursor: pointer;
}

.stepper button:hover:not(:disabled) {
  background: var(--tint);
}

.stepper button:disabled {
  color: var(--line);
  cursor: default;
}

/* Below it, as wide as the words need. */
.stepper :deep(.number-fault) {
  grid-column: 1 / -1;
  grid-row: 2;
  padding: 2px 6px 4px;
}

.stepper :deep(input) {
  width: 100%;
  height: 44px;
  padding: 0;
  border: 0;
  background: none;
  text-align: center;
  font-size: 1.3125rem;
  font-weight: 660;
}
</style>
