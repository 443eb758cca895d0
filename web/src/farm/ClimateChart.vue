<script setup lang="ts">
import { computed } from 'vue'
import type { SiteMonth } from '@/api/client'
import { useSay } from '@/words/useSay'
import { drawYear } from './year'

/** A year at a site: the mean with its daily swing as a band, the rain as bars. */
const { months } = defineProps<{ months: SiteMonth[] }>()
const say = useSay()
const { t } = say

const drawn = computed(() => drawYear(months))
const letter = (index: number) =>
  new Intl.DateTimeFormat(say.locale.value, { month: 'narrow', timeZone: 'UTC' }).format(
    Date.UTC(2026, index, 15),
  )
const text = computed(() => {
  const warmest = Math.max(...months.map((one) => one.mean_c + one.swing_c))
  const coldest = Math.min(...months.map((one) => one.mean_c - one.swing_c))
  const rain = months.reduce((sum, one) => sum + one.rain_mm, 0)
  return t('sites.year', {
    coldest: say.of(coldest, 'temperature'),
    warmest: say.of(warmest, 'temperature'),
    rain: say.of(rain, 'rain'),
  })
})
</script>

<template>
  <figure>
    <svg viewBox="0 0 420 118" role="img" :aria-label="text">
      <rect v-for="bar in drawn.rain" :key="bar.x" v-bind="bar" class="rain" />
      <path :d="drawn.band" class="band" />
      <path :d="drawn.mean" class="mean" />
      <path d="M8 98H412" class="hatch-line" />
      <text v-for="(x, index) in drawn.centres" :key="index" :x="x" y="113" text-anchor="middle">
        {{ letter(index) }}
      </text>
    </svg>
    <figcaption class="quiet small">{{ text }}</figcaption>
  </figure>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}

.rain {
  fill: url('#hatch-water');
  stroke: var(--line);
}

.band {
  fill: var(--ink);
  opacity: 0.14;
}

.mean {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
}

text {
  font-size: 12px;
  fill: var(--ink-2);
}
</style>
