<script setup lang="ts">
import { logarithmic } from '@/kit/scale'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { ThumbAnswer } from '@/api/client'
import { AIM, ratioTicks } from './field'
import { anchoredAt, placeLabels } from '@/plan/labels'
import { ratioRange } from './thumb'

/** From the shortcut to the truth: C:N up, the materials at the left, then each average, weighed by one thing more. */
const { answer, names, chosen, width } = defineProps<{
  answer: ThumbAnswer
  names: string[]
  /** The average whose sum is open. */
  chosen: string
  width: number
}>()
const emit = defineEmits<{ choose: [by: string] }>()
const { t } = useI18n()

const HEIGHT = 300
const frame = computed(() => ({ left: 36, top: 8, width: width - 40, height: HEIGHT - 16 }))
const range = computed(() =>
  ratioRange([...answer.items.map(({ c_n }) => c_n), ...answer.ladder.map(({ c_n }) => c_n)], AIM.ratio),
)
const y = computed(() => logarithmic(range.value, [frame.value.top + frame.value.height, frame.value.top]))
const columns = computed(() => answer.ladder.length + 1)
const x = (column: number) => frame.value.left + ((column + 0.5) * frame.value.width) / columns.value

const rungs = computed(() =>
  answer.ladder.map(({ by, c_n }, at) => ({
    by,
    c_n,
    x: x(at + 1),
    y: y.value(c_n),
    isLast: at === answer.ladder.length - 1,
  })),
)
const line = computed(() => rungs.value.map((rung, at) => `${at ? 'L' : 'M'}${rung.x} ${rung.y}`).join(''))
const materials = computed(() =>
  answer.items
    .map((item, at) => ({
      key: at,
      name: names[at] ?? item.material,
      y: y.value(Math.max(item.c_n, range.value[0])),
      x: frame.value.left + 8,
    }))
    .filter(({ y }) => Number.isFinite(y)),
)
const labels = computed(() =>
  placeLabels(
    materials.value.map(({ x, y, name }) => ({
      x,
      y,
      r: 5,
      text: name.length > 16 ? `${name.slice(0, 15)}…` : name,
    })),
    { x: frame.value.left, y: frame.value.top, width: frame.value.width / 1.6, height: frame.value.height },
    rungs.value.map((rung) => ({ x: rung.x - 24, y: rung.y - 26, width: 48, height: 40 })),
  ).filter((label) => label !== null),
)
const ticks = computed(() => ratioTicks({ moisture: [0, 100], ratio: range.value }, frame.value.height))
</script>

<template>
  <svg
    :width="width"
    :height="HEIGHT"
    :viewBox="`0 0 ${width} ${HEIGHT}`"
    role="group"
    :aria-label="t('rules.picture')"
  >
    <g aria-hidden="true">
      <rect
        :x="frame.left"
        :y="y(AIM.ratio[1])"
        :width="frame.width"
        :height="y(AIM.ratio[0]) - y(AIM.ratio[1])"
        class="aim"
      />
      <g v-for="tick in ticks" :key="tick">
        <path :d="`M${frame.left} ${y(tick)}H${frame.left + frame.width}`" class="grid" />
        <text :x="frame.left - 6" :y="y(tick) + 4.5" text-anchor="end" class="axis">{{ tick }}</text>
      </g>
      <text :x="frame.left + frame.width - 4" :y="y(AIM.ratio[1]) - 5" text-anchor="end" class="axis">
        {{ t('bench.aim') }} {{ AIM.ratio[0] }}–{{ AIM.ratio[1] }}
      </text>
      <circle v-for="one in materials" :key="one.key" :cx="one.x" :cy="one.y" r="5" class="material" />
      <text
        v-for="label in labels"
        :key="label.text + label.y"
        :x="anchoredAt(label)"
        :y="label.y + 12"
        :text-anchor="label.anchor"
        class="name"
      >
        {{ label.text }}
      </text>
      <path :d="line" class="way" />
    </g>
    <g
      v-for="rung in rungs"
      :key="rung.by"
      role="button"
      tabindex="0"
      class="rung"
      :class="{ truth: rung.isLast, chosen: rung.by === chosen }"
      :aria-pressed="rung.by === chosen"
      :aria-label="t('rules.rung', { by: t(`rules.by.${rung.by}`), ratio: Math.round(rung.c_n) })"
      :transform="`translate(${rung.x} ${rung.y})`"
      @click="emit('choose', rung.by)"
      @keydown.enter.prevent="emit('choose', rung.by)"
      @keydown.space.prevent="emit('choose', rung.by)"
    >
      <circle r="22" class="reach" />
      <circle :r="rung.isLast ? 9 : 7" class="dot" />
      <text y="-14" text-anchor="middle" class="value">{{ Math.round(rung.c_n) }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
}

.aim {
  fill: var(--sheet);
  stroke: var(--ink);
}

.grid {
  stroke: var(--line);
  stroke-width: 0.6;
}

.axis {
  font-size: 12px;
  fill: var(--ink-2);
}

.name {
  font-size: 13px;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}

.material {
  fill: var(--ink-2);
}

.way {
  fill: none;
  stroke: var(--act);
  stroke-width: 2;
  stroke-dasharray: 2 4;
  stroke-linecap: round;
}

.rung {
  cursor: pointer;
}

.rung:focus {
  outline: none;
}

.reach {
  fill: transparent;
}

.dot {
  fill: var(--paper);
  stroke: var(--act);
  stroke-width: 2;
}

.truth .dot {
  fill: var(--act);
}

.rung:focus-visible .reach,
.chosen .reach {
  stroke: var(--act);
  stroke-width: 1.5;
}

.value {
  font-size: 17px;
  font-weight: 680;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
</style>
