<script setup lang="ts">
import { computed } from 'vue'
import { useSay } from '@/words/useSay'

/** The core of a heap, small, on the scale of the others beside it. */
const { core, days, name } = defineProps<{ core: number[][]; days: number; name: string }>()
const { t, of, whole } = useSay()
const WIDE = 240
const HIGH = 86
const x = (day: number) => (day / days) * WIDE
const y = (temp: number) => HIGH - (Math.max(0, Math.min(75, temp)) / 75) * HIGH
const path = computed(() =>
  core.map(([day, temp], at) => `${at ? 'L' : 'M'}${x(day!).toFixed(1)} ${y(temp!).toFixed(1)}`).join(''),
)
const hottest = computed(() => Math.max(...core.map(([, temp]) => temp!)))
const words = computed(() =>
  core.length
    ? t('compare.traceOf', { name, hottest: of(hottest.value, 'temperature'), days: whole(core.at(-1)![0]!) })
    : t('compare.notRead', { name }),
)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDE} ${HIGH + 14}`" role="img" :aria-label="words">
    <path :d="`M0 ${HIGH}H${WIDE}`" class="foot" />
    <path :d="`M0 ${y(55)}H${WIDE}`" class="hot" />
    <text :x="WIDE" :y="y(55) - 3" text-anchor="end">{{ of(55, 'temperature') }}</text>
    <path v-if="core.length" :d="path" class="core" />
    <text v-else :x="WIDE / 2" :y="HIGH / 2 + 22" text-anchor="middle">{{ t('trace.nothingRead') }}</text>
    <text :x="WIDE" :y="HIGH + 12" text-anchor="end">{{ t('compare.day', { day: whole(days) }) }}</text>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  height: auto;
}

.foot {
  stroke: var(--ink-2);
}

.hot {
  stroke: var(--act);
  stroke-dasharray: 4 3;
}

.core {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
  stroke-linejoin: round;
}

text {
  font-size: 11px;
  fill: var(--ink-2);
}
</style>
