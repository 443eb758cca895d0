<script setup lang="ts">
import SelectButton from 'primevue/selectbutton'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { HeapShape } from '@/api/client'
import NumberField from '@/components/NumberField.vue'
import { useUnits } from '@/composables/useUnits'

/** The heap's shape and sides. */
const heap = defineModel<HeapShape>({ required: true })
const { t } = useI18n()
const units = useUnits()

const LEAST = 10
const MOST = 1000

const shapes = computed(() => [
  { value: 'box', label: t('layers.box') },
  { value: 'ring', label: t('layers.ring') },
])

const sides = computed(() =>
  heap.value.shape === 'box'
    ? [
        {
          key: 'width_cm',
          label: t('layers.width', { unit: units.sign('length') }),
          value: heap.value.width_cm,
        },
        {
          key: 'length_cm',
          label: t('layers.length', { unit: units.sign('length') }),
          value: heap.value.length_cm,
        },
        {
          key: 'height_cm',
          label: t('layers.height', { unit: units.sign('length') }),
          value: heap.value.height_cm,
        },
      ]
    : [
        {
          key: 'diameter_cm',
          label: t('layers.diameter', { unit: units.sign('length') }),
          value: heap.value.diameter_cm,
        },
        {
          key: 'height_cm',
          label: t('layers.height', { unit: units.sign('length') }),
          value: heap.value.height_cm,
        },
      ],
)

function setShape(shape: string) {
  if (shape === heap.value.shape) return
  const { height_cm } = heap.value
  heap.value =
    shape === 'ring' && heap.value.shape === 'box'
      ? { shape: 'ring', diameter_cm: heap.value.width_cm, height_cm }
      : { shape: 'box', length_cm: across(heap.value), width_cm: across(heap.value), height_cm }
}

const across = (from: HeapShape) => (from.shape === 'ring' ? from.diameter_cm : from.width_cm)

function setSide(key: string, side: number | null) {
  if (side !== null) heap.value = { ...heap.value, [key]: side } as HeapShape
}
</script>

<template>
  <div class="shape">
    <SelectButton
      :model-value="heap.shape"
      :options="shapes"
      option-label="label"
      option-value="value"
      :allow-empty="false"
      :aria-label="t('layers.shape')"
      @update:model-value="setShape"
    />
    <div v-for="side in sides" :key="side.key" class="side">
      <label :for="`side-${side.key}`">{{ side.label }}</label>
      <NumberField
        :id="`side-${side.key}`"
        :model-value="side.value"
        :min="LEAST"
        :max="MOST"
        :digits="0"
        quantity="length"
        :step="5"
        @update:model-value="(value) => setSide(side.key, value)"
      />
    </div>
  </div>
</template>

<style scoped>
.shape {
  display: flex;
  flex-wrap: wrap;
  gap: 12px 18px;
  align-items: flex-end;
}

.shape :deep(.p-togglebutton) {
  min-height: 46px;
}

label {
  display: block;
  margin-bottom: 2px;
  font-size: 0.875rem;
  color: var(--ink-2);
}

.side :deep(input) {
  width: 92px;
  height: 46px;
}

@media (max-width: 859px) {
  .shape > :first-child {
    width: 100%;
  }

  .shape :deep(.p-togglebutton) {
    flex: 1;
  }

  .side {
    flex: 1;
  }

  .side :deep(input) {
    width: 100%;
  }
}

@media print {
  .shape {
    display: none;
  }
}
</style>
