<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import type { Method } from '@/api/client'
import { useSay } from '@/words/useSay'
import { useUnits } from '@/words/useUnits'
import { useWidth } from '@/kit/useWidth'
import { heatOf } from './method'

/** How warm the core should be at what age: a band, since one heap differs from the next. */
const { method } = defineProps<{ method: Method }>()
const { t, of } = useSay()
const units = useUnits()
const box = useTemplateRef<HTMLElement>('box')
const width = useWidth(box, 320)
const drawn = computed(() => heatOf(method.expected, width.value))
const warm = (celsius: number) => Math.round(units.shown(celsius, 'temperature'))
const peak = computed(() => Math.max(...method.expected.map(({ core_c }) => core_c[1] ?? 0)))
const inWords = computed(() => t('methods.heatText', { peak: of(peak.value, 'temperature') }))
</script>

<template>
  <figure ref="box">
    <svg :width="drawn.width" :height="drawn.height" role="img" :aria-label="inWords">
      <g v-for="tick in drawn.warmth" :key="tick.celsius">
        <path :d="`M36 ${tick.y}H${drawn.width - 10}`" :class="tick.celsius === 55 ? 'hot' : 'grid'" />
        <text x="30" :y="tick.y + 4.5" text-anchor="end">{{ warm(tick.celsius) }}</text>
      </g>
      <path :d="drawn.band" class="band" />
      <text
        v-for="tick in drawn.ticks"
        :key="tick.day"
        :x="tick.x"
        :y="drawn.height - 6"
        text-anchor="middle"
      >
        {{ tick.day }}
      </text>
    </svg>
    <figcaption class="quiet small">
      {{ t('methods.heatNote', { unit: units.sign('temperature') }) }}
    </figcaption>
  </figure>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
}

.grid {
  stroke: var(--line);
  stroke-width: 0.7;
}

.hot {
  stroke: var(--alarm);
  stroke-width: 1.2;
  stroke-dasharray: 4 3;
}

.band {
  fill: var(--act);
  fill-opacity: 0.2;
  stroke: var(--act);
  stroke-width: 1.2;
}

text {
  font-size: 12px;
  fill: var(--ink-2);
}
</style>
