<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useUnits } from '@/composables/useUnits'
import type { HeapShape, LayerPlan } from '@/api/client'
import { spread, textWidth } from '@/figures/labels'
import { drawSection, sheetHeight } from '@/figures/section'

/** The heap in section, to scale, with a height staff; with names beside the layers where there is room. */
const { plan, heap, hatches, names, width, height } = defineProps<{
  plan: LayerPlan
  heap: HeapShape
  /** Hatch of each item of the mix. */
  hatches: string[]
  /** What stands beside each layer, if there is to be anything: a number, and perhaps words. */
  names?: { number: number; text: string }[]
  width: number
  /** The most it may take; a wide low heap takes less. */
  height: number
}>()

const { t } = useI18n()
const units = useUnits()
/** Lengths to the whole centimetre or inch. */
const long = (cm: number) => Math.round(units.shown(cm, 'length'))
const longSaid = (cm: number) => `${long(cm)} ${units.sign('length')}`

const NUMBER_ROOM = 24
const GAP = 18

const room = computed(() => {
  if (!names) return 8
  const longest = Math.max(...names.map(({ text }) => textWidth(text)))
  return GAP + NUMBER_ROOM + Math.min(width * 0.42, longest)
})
const sheet = computed(() => ({ width, left: 44, right: room.value, top: 26, bottom: 40 }))
const drawn = computed(() => sheetHeight(plan, sheet.value, height))
const section = computed(() =>
  drawSection(plan, { ...sheet.value, height: drawn.value }, units.kept(1, 'length')),
)

const beside = computed(() => {
  if (!names) return []
  const { strata, left, width: wide, ground } = section.value
  const wanted = strata.map((stratum) => stratum.y + stratum.height / 2)
  const heights = spread(wanted, 16, 12, ground - 4)
  return strata.map((_, index) => ({
    number: names[index]?.number,
    text: fit(names[index]?.text ?? '', room.value - GAP - NUMBER_ROOM),
    from: left + wide,
    at: wanted[index]!,
    y: heights[index]!,
    x: left + wide + GAP,
  }))
})

function fit(text: string, room: number): string {
  if (textWidth(text) <= room) return text
  return `${text.slice(0, Math.floor(room / textWidth('x')) - 1).trimEnd()}…`
}

/** Names are left out rather than printed over each other. */
const hasRoom = computed(() => {
  const [first, second] = beside.value
  return beside.value.length < 2 || Math.abs(first!.y - second!.y) >= 12
})

const size = computed(() =>
  heap.shape === 'box'
    ? t('layers.boxSize', { length: long(heap.length_cm), width: longSaid(heap.width_cm) })
    : t('layers.ringSize', { diameter: longSaid(heap.diameter_cm) }),
)
</script>

<template>
  <svg
    :width="width"
    :height="drawn"
    :viewBox="`0 0 ${width} ${drawn}`"
    role="img"
    :aria-label="`${t('bench.section')}: ${size}, ${t('layers.high', { height: longSaid(plan.height_cm) })}`"
  >
    <g v-for="stratum in section.strata" :key="stratum.index">
      <rect v-bind="stratum" class="sheet" />
      <rect v-bind="stratum" class="layer" :fill="`url(#${hatches[plan.layers[stratum.index]!.item]})`" />
    </g>
    <path
      :d="`M${section.left} ${section.rim}V${section.ground}M${section.left + section.width} ${section.rim}V${section.ground}`"
      class="wall"
    />
    <path :d="`M8 ${section.ground}H${width - room + 8}`" class="ground" />
    <rect :x="section.left" :y="section.ground" :width="section.width" height="9" fill="url(#hatch-ground)" />
    <path :d="`M${section.left - 6} ${section.ground}V${section.staff.at(-1)!.y}`" class="staff" />
    <g v-for="mark in section.staff" :key="mark.cm">
      <path :d="`M${section.left - 9} ${mark.y}h6`" class="staff" />
      <text :x="section.left - 12" :y="mark.y + (mark.cm === 0 ? -3 : 4.5)" text-anchor="end" class="axis">
        {{ long(mark.cm) }}
      </text>
    </g>
    <text :x="section.left + 8" :y="(section.strata.at(-1)?.y ?? section.ground) - 9" class="high">
      {{ t('layers.high', { height: longSaid(plan.height_cm) }) }}
    </text>
    <text :x="section.left" :y="section.ground + 27" class="axis">{{ size }}</text>
    <template v-if="hasRoom">
      <g v-for="(label, index) in beside" :key="index">
        <path :d="`M${label.from} ${label.at}l6 0L${label.x - 4} ${label.y}`" class="leader" />
        <text :x="label.x" :y="label.y + 4.5" class="name strong">{{ label.number }}</text>
        <text :x="label.x + 24" :y="label.y + 4.5" class="name">{{ label.text }}</text>
      </g>
    </template>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
}

.sheet {
  fill: var(--sheet);
}

.layer {
  stroke: var(--ink);
  stroke-width: 0.8;
}

.wall {
  stroke: var(--ink);
  stroke-width: 2.4;
}

.ground {
  stroke: var(--ink);
  stroke-width: 2;
}

.staff {
  stroke: var(--ink);
}

.leader {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 0.8;
}

.axis {
  font-size: 12px;
  fill: var(--ink-2);
}

.high {
  font-size: 13px;
  font-weight: 680;
  fill: var(--ink);
}

.name {
  font-size: 13px;
  fill: var(--ink);
}

.strong {
  font-weight: 680;
}
</style>
