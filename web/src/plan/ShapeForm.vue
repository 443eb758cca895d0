<script setup lang="ts">
import '@/theme/controls'
import SelectButton from 'primevue/selectbutton'
import { computed, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { HeapShape, Method } from '@/api/client'
import { useLimits } from '@/api/useLimits'
import NumberField from '@/kit/NumberField.vue'
import { useUnits } from '@/words/useUnits'
import { GLYPHS, SHAPES, type ShapeWord, type Side, reshaped, sidesOf } from './shape'

/** The heap's shape and the sides that are measured on it. */
const { method = null, shapes: sensible = [] } = defineProps<{
  method?: Method | null
  /** A sensible heap of every kind for the mix. */
  shapes?: HeapShape[]
}>()
const heap = defineModel<HeapShape>({ required: true })
const { t } = useI18n()
const limits = useLimits()
const units = useUnits()

/** The method's own shapes first. */
const shapes = computed(() => {
  const own = method?.shapes ?? []
  const rank = (shape: ShapeWord) => (own.includes(shape) ? own.indexOf(shape) : SHAPES.length)
  return [...SHAPES]
    .sort((a, b) => rank(a) - rank(b))
    .map((value) => ({ value, label: t(`layers.${value}`), glyph: GLYPHS[value] }))
})

const sides = computed(() =>
  sidesOf(heap.value).map(({ side, value }) => ({
    side,
    value,
    label: t(`layers.side.${side}`, { unit: units.sign('length') }),
    limits: limitsOf(side),
  })),
)

function limitsOf(side: Side) {
  if (side === 'top_cm') return { min: narrowest(heap.value), max: heap.value.width_cm ?? Infinity }
  if (side === 'length_cm' && heap.value.shape === 'windrow') return limits.of('windrow_cm')
  return limits.in('side', side)
}

/** All sides of a pile slope alike, so its shorter side closes first. */
const narrowest = (pile: HeapShape) => Math.max(0, (pile.width_cm ?? 0) - (pile.length_cm ?? 0))

function setShape(shape: ShapeWord) {
  if (shape !== heap.value.shape) heap.value = reshaped(shape, sensible, method)
}

/** How wide the top is beside the foot, as it was last set; what is half typed elsewhere does not change it. */
let slope = slopeOf(heap.value)
let typed = ''
watch(heap, (now) => {
  if (JSON.stringify(now) !== typed) slope = slopeOf(now)
})
function slopeOf({ top_cm, width_cm }: HeapShape): number {
  return top_cm != null && width_cm ? top_cm / width_cm : 0.6
}

function setSide(side: Side, value: number | null) {
  if (value === null) return
  const next = { ...heap.value, [side]: value }
  if (side === 'top_cm') slope = slopeOf(next)
  else if (next.top_cm != null)
    next.top_cm = Math.max(Math.round(slope * (next.width_cm ?? 0)), narrowest(next))
  typed = JSON.stringify(next)
  heap.value = next
}
</script>

<template>
  <div class="shape">
    <SelectButton
      :model-value="heap.shape"
      :options="shapes"
      option-label="label"
      option-value="value"
      data-key="value"
      :allow-empty="false"
      :aria-label="t('layers.shape')"
      @update:model-value="setShape"
    >
      <template #option="{ option }">
        <svg viewBox="0 0 36 26" width="36" height="26" aria-hidden="true"><path :d="option.glyph" /></svg>
        <span>{{ option.label }}</span>
      </template>
    </SelectButton>
    <div class="sides">
      <div v-for="one in sides" :key="one.side" class="side">
        <label :for="`side-${one.side}`">{{ one.label }}</label>
        <NumberField
          :id="`side-${one.side}`"
          :model-value="one.value"
          v-bind="one.limits"
          :digits="0"
          :quantity="one.side === 'columns' ? undefined : 'length'"
          :step="one.side === 'columns' ? 1 : 5"
          @update:model-value="(value) => setSide(one.side, value)"
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.shape,
.sides {
  display: flex;
  flex-wrap: wrap;
  gap: 12px 18px;
  align-items: start;
}

.shape :deep(.p-togglebutton-content) {
  display: grid;
  justify-items: center;
  gap: 2px;
  font-size: 0.875rem;
}

.shape :deep(.p-togglebutton) {
  min-height: 60px;
  padding-inline: 8px;
}

svg path {
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.6;
  stroke-linejoin: round;
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
    display: grid;
    width: 100%;
    grid-template-columns: repeat(4, minmax(0, 1fr));
  }

  .shape :deep(.p-togglebutton) {
    padding-inline: 2px;
    border-inline-start: 1px solid var(--ink);
    border-radius: 0;
  }

  .sides {
    display: grid;
    width: 100%;
    grid-template-columns: repeat(auto-fit, minmax(96px, 1fr));
    gap: 12px;
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
