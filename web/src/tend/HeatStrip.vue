<script setup lang="ts">
import { computed } from 'vue'
import type { HeapStrip } from '@/api/client'
import { useSay } from '@/words/useSay'
import { heatColour } from './ramp'

/** How hot each day was, as a strip of cells; a day without a reading is left open. */
const { strip, most = 60 } = defineProps<{ strip: HeapStrip; most?: number }>()
const { t, of } = useSay()

/** Long lives are told in cells of several days: each by its hottest. */
const cells = computed(() => {
  const by = Math.max(1, Math.ceil(strip.days.length / most))
  return Array.from({ length: Math.ceil(strip.days.length / by) }, (_, nth) => {
    const days = strip.days.slice(nth * by, (nth + 1) * by).filter((day): day is number => day !== null)
    const turned = strip.turned.some((day) => day >= nth * by && day < (nth + 1) * by)
    return { celsius: days.length ? Math.max(...days) : null, turned }
  })
})
const inWords = computed(() => {
  const read = strip.days.flatMap((celsius, day) => (celsius === null ? [] : [{ celsius, day }]))
  const hottest = read.reduce<(typeof read)[number] | null>(
    (a, b) => (a && a.celsius >= b.celsius ? a : b),
    null,
  )
  return hottest
    ? t('trace.hottest', { temp: of(hottest.celsius, 'temperature'), day: hottest.day })
    : t('trace.nothingRead')
})
</script>

<template>
  <svg :viewBox="`0 0 ${cells.length * 10} 22`" preserveAspectRatio="none" role="img" :aria-label="inWords">
    <g v-for="(cell, at) in cells" :key="at">
      <rect
        :x="at * 10 + 0.5"
        y="1"
        width="9"
        height="16"
        :class="{ open: cell.celsius === null }"
        :style="cell.celsius === null ? {} : { fill: heatColour(cell.celsius) }"
      />
      <rect v-if="(cell.celsius ?? 0) >= 55" :x="at * 10 + 2" y="12" width="6" height="2.4" class="hot" />
      <path v-if="cell.turned" :d="`M${at * 10 + 5} 18v4`" class="turned" />
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  height: 30px;
}

.open {
  fill: none;
  stroke: var(--line);
  stroke-width: 0.7;
}

.hot {
  fill: #fff;
}

.turned {
  stroke: var(--ink);
  stroke-width: 2;
}
</style>
