<script setup lang="ts">
import { line } from 'd3-shape'
import { computed, useTemplateRef } from 'vue'
import type { LoggerSeen } from '@/api/client'
import { linear } from '@/kit/scale'
import { useWidth } from '@/kit/useWidth'
import { useSay } from '@/words/useSay'

/** What a logger's file looks like, before it is taken in. */
const { lines } = defineProps<{ lines: LoggerSeen['lines'] }>()
const { t, of } = useSay()
const box = useTemplateRef<HTMLElement>('box')
const width = useWidth(box, 328)
const HEIGHT = 180

const drawn = computed(() => {
  const all = lines.flatMap(({ points }) => points)
  const at = all.map(([ms]) => ms!)
  const temps = all.map(([, celsius]) => celsius!)
  const [from, to] = [Math.min(...at), Math.max(...at)]
  const [low, high] = [Math.min(0, ...temps), Math.max(70, ...temps)]
  const x = linear([from, to > from ? to : from + 1], [40, width.value - 8])
  const y = linear([low, high], [HEIGHT - 10, 10])
  const path = line<number[]>()
    .x(([ms]) => x(ms!))
    .y(([, celsius]) => y(celsius!))
  return {
    lines: lines.map(({ place, points }) => ({ place, path: path(points) ?? '' })),
    warmth: [0, 20, 40, 55, 70].filter((one) => one >= low && one <= high).map((one) => ({ one, y: y(one) })),
  }
})
const text = computed(() =>
  lines
    .map(({ place, points }) => {
      const temps = points.map(([, celsius]) => celsius!)
      const [low, high] = [Math.min(...temps), Math.max(...temps)].map((one) => of(one, 'temperature'))
      return t('import.lineIs', { place: t(`tend.place.${place}`), low, high })
    })
    .join(' '),
)
</script>

<template>
  <figure ref="box">
    <svg :width="width" :height="HEIGHT" role="img" :aria-label="text">
      <g v-for="tick in drawn.warmth" :key="tick.one">
        <path :d="`M40 ${tick.y}H${width - 8}`" class="grid" />
        <text x="34" :y="tick.y + 4" text-anchor="end">{{ of(tick.one, 'temperature') }}</text>
      </g>
      <path v-for="one in drawn.lines" :key="one.place" :d="one.path" :class="['line', one.place]" />
    </svg>
    <figcaption class="small">{{ text }}</figcaption>
  </figure>
</template>

<style scoped src="./trace.css"></style>
