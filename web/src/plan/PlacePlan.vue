<script setup lang="ts">
import { computed } from 'vue'
import { useSay } from '@/words/useSay'

/** A corner from above, to scale: where heaps stand, where there is room to turn them, where a person stands. */
const { plots, length, width, isHeap } = defineProps<{
  plots: { x_cm: number; y_cm: number; length_cm: number; width_cm: number; is_free: boolean }[]
  length: number
  width: number
  isHeap: boolean
}>()
const say = useSay()
const { t } = say

const EDGE = 18
const scale = computed(() => Math.min(300 / length, 240 / width))
const high = computed(() => width * scale.value)
const wide = computed(() => length * scale.value)
const rects = computed(() =>
  plots.map((plot) => ({
    ...plot,
    x: EDGE + plot.x_cm * scale.value,
    y: EDGE + plot.y_cm * scale.value,
    w: plot.length_cm * scale.value,
    h: plot.width_cm * scale.value,
    text: `${say.length(plot.length_cm)} × ${say.length(plot.width_cm)}`,
  })),
)
const words = computed(() =>
  t('place.drawing', {
    filled: plots.filter((plot) => !plot.is_free).length,
    free: plots.filter((plot) => plot.is_free).length,
    length: say.length(length),
    width: say.length(width),
  }),
)
const workY = computed(() => {
  const deepest = Math.max(...rects.value.map((rect) => rect.y + rect.h))
  return (deepest + EDGE + high.value) / 2 + 4
})
</script>

<template>
  <svg
    :width="wide + 2 * EDGE"
    :height="high + 2 * EDGE"
    :viewBox="`0 0 ${wide + 2 * EDGE} ${high + 2 * EDGE}`"
    role="img"
    :aria-label="words"
  >
    <rect :x="EDGE" :y="EDGE" :width="wide" :height="high" class="ground" />
    <g v-for="rect in rects" :key="rect.x">
      <rect
        :x="rect.x"
        :y="rect.y"
        :width="rect.w"
        :height="rect.h"
        :rx="isHeap ? 10 : 0"
        :class="rect.is_free ? 'free' : 'heap'"
        :fill="rect.is_free ? 'none' : 'url(#hatch-straw-1)'"
      />
      <rect
        v-if="!rect.is_free"
        :x="rect.x + rect.w / 2 - 50"
        :y="rect.y + rect.h / 2 - 11"
        width="100"
        height="22"
        class="label-ground"
      />
      <text :x="rect.x + rect.w / 2" :y="rect.y + rect.h / 2 + 5" text-anchor="middle" class="label">
        {{ rect.is_free ? t('place.toTurn') : rect.text }}
      </text>
    </g>
    <text :x="EDGE + wide / 2" :y="workY" text-anchor="middle" class="label quiet-label">
      {{ t('place.toWork') }}
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
}

.ground {
  fill: var(--paper-2);
  stroke: var(--ink);
  stroke-width: 1.5;
}

.heap {
  stroke: var(--ink);
  stroke-width: 1.5;
}

.free {
  stroke: var(--ink-2);
  stroke-dasharray: 5 4;
}

.label-ground {
  fill: var(--sheet);
}

.label {
  font-size: 13px;
  fill: var(--ink);
}

.quiet-label {
  fill: var(--ink-2);
}
</style>
