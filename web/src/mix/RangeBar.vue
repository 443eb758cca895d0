<script setup lang="ts">
import { computed } from 'vue'
import { placeOf, type RangeFigure } from './range'

/** The range usually met as a bar on its scale, the usual value a tick, a person's own figure a mark. */
const { figure, low, typical, high, value } = defineProps<{
  figure: RangeFigure
  low: number
  typical: number
  high: number
  /** The figure reckoned with, if it is not the usual one. */
  value?: number
}>()

const WIDTH = 120
const at = (of: number) => 2 + placeOf(figure, of) * (WIDTH - 4)
const bar = computed(() => ({ x: at(low), width: Math.max(2, at(high) - at(low)) }))
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} 18`" class="range" aria-hidden="true" preserveAspectRatio="none">
    <path :d="`M2 9H${WIDTH - 2}`" class="scale" />
    <rect v-if="low < high" :x="bar.x" y="5.5" :width="bar.width" height="7" class="bar" />
    <path :d="`M${at(typical)} 3V15`" class="tick" />
    <path v-if="value !== undefined" :d="`M${at(value)} 1l4 -1h-8zM${at(value)} 1V17`" class="own" />
  </svg>
</template>

<style scoped>
.range {
  display: block;
  width: 100%;
  height: 18px;
}

.scale {
  stroke: var(--line);
}

.bar {
  fill: var(--tint);
  stroke: var(--ink-2);
  stroke-width: 0.8;
  vector-effect: non-scaling-stroke;
}

.tick {
  stroke: var(--ink);
  stroke-width: 1.6;
  vector-effect: non-scaling-stroke;
}

.own {
  fill: var(--act);
  stroke: var(--act);
  stroke-width: 2.4;
  vector-effect: non-scaling-stroke;
}
</style>
