<script setup lang="ts">
import { computed, useId } from 'vue'
import { useI18n } from 'vue-i18n'
import { AIM, closeView, type FieldWindow, outlinePath, type Place, scales, WORKS } from './field'

/** Where a mix lies in the balance field, small. */
const {
  moisture,
  ratio,
  outline = [],
  aim = AIM,
  works = WORKS,
} = defineProps<{
  moisture: number
  ratio: number
  /** A line around what it may turn out to be. */
  outline?: Place[]
  aim?: FieldWindow
  works?: FieldWindow
}>()
const { t } = useI18n()
const clip = useId()

const FRAME = { left: 4, top: 4, width: 152, height: 112 }
const place = computed(() => ({ moisture_pct: moisture, c_n: ratio }))
const scale = computed(() => scales(closeView(place.value, works), FRAME))
const mark = computed(() => ({ cx: scale.value.x(moisture), cy: scale.value.y(ratio) }))

function box({ moisture: [dry, wet], ratio: [low, high] }: FieldWindow) {
  const { x, y } = scale.value
  return { x: x(dry), y: y(high), width: x(wet) - x(dry), height: y(low) - y(high) }
}
</script>

<template>
  <svg
    viewBox="0 0 160 120"
    role="img"
    :aria-label="t('choices.place', { water: Math.round(moisture), ratio: Math.round(ratio) })"
  >
    <rect v-bind="box(works)" class="works" />
    <rect v-bind="box(aim)" class="aim" />
    <path v-if="outline.length" :d="outlinePath(outline, scale)" class="doubt" :clip-path="`url(#${clip})`" />
    <clipPath :id="clip"><rect x="4" y="4" width="152" height="112" /></clipPath>
    <path d="M4 4V116H156" class="hatch-line" />
    <circle v-bind="mark" r="7" class="mark" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 160px;
  height: 120px;
}

.works {
  fill: var(--paper-2);
  stroke: var(--ink-2);
  stroke-dasharray: 4 3;
}

.aim {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.6;
}

.doubt {
  fill: var(--act);
  fill-opacity: 0.13;
  stroke: var(--act);
  stroke-dasharray: 1.5 3;
  stroke-linecap: round;
}

.mark {
  fill: var(--act);
  stroke: var(--paper);
  stroke-width: 2;
}
</style>
