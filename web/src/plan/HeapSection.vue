<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useUnits } from '@/words/useUnits'
import type { HeapShape, LayerPlan } from '@/api/client'
import { spread, textWidth } from './labels'
import { drawSection, fillOf, sheetHeight } from './section'
import { sidesOf } from './shape'

/** The heap in section, to scale, with a height staff; with names beside the layers where there is room. */
const { plan, heap, hatches, names, width, height } = defineProps<{
  plan: LayerPlan
  heap: HeapShape
  /** Hatch of each item of the mix. */
  hatches: string[]
  /** What stands beside each band, if there is to be anything: a number, and perhaps words. */
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
  drawSection(plan, { ...sheet.value, height: drawn.value }, units.kept(1, 'length'), heap.shape),
)

const beside = computed(() => {
  if (!names) return []
  const { strata, ground } = section.value
  const wanted = strata.map(({ edge }) => edge.y)
  const heights = spread(wanted, 16, 12, ground - 4)
  const right = section.value.left + section.value.width
  const all = strata.map(({ edge, height: high }, index) => ({
    // What no longer fits under sloping sides has no place to point at.
    isSeen: high > 0.5,
    number: names[index]?.number,
    text: fit(names[index]?.text ?? '', room.value - GAP - NUMBER_ROOM),
    from: edge.x,
    at: wanted[index]!,
    y: heights[index]!,
    x: right + GAP,
  }))
  return all.filter(({ isSeen }) => isSeen)
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

const size = computed(() => {
  const said = sidesOf(heap).map(({ side, value }) => [side, side === 'columns' ? value : longSaid(value)])
  return t(`section.size.${heap.shape}`, Object.fromEntries(said))
})
</script>

<template>
  <svg
    :width="width"
    :height="drawn"
    :viewBox="`0 0 ${width} ${drawn}`"
    role="img"
    :aria-label="`${t('bench.section')}: ${size}, ${t('section.high', { height: longSaid(plan.height_cm) })}`"
  >
    <path v-if="section.sides" :d="section.sides" class="planned" />
    <g v-for="(stratum, at) in section.strata" :key="at">
      <path :d="stratum.path" class="sheet" />
      <path
        v-for="(cell, place) in stratum.cells"
        :key="place"
        :d="cell.path"
        class="cell"
        :fill="fillOf(cell.item, stratum.band.role, hatches)"
      />
      <path :d="stratum.path" class="layer" :class="{ beside: stratum.cells[0]?.item === null }" />
    </g>
    <path v-if="section.vents" :d="section.vents" class="vent" />
    <path v-if="section.holder" :d="section.holder" class="wall" />
    <path :d="`M8 ${section.ground}H${width - room + 8}`" class="ground" />
    <rect :x="section.left" :y="section.ground" :width="section.width" height="9" fill="url(#hatch-ground)" />
    <path :d="`M${section.left - 6} ${section.ground}V${section.staff.at(-1)!.y}`" class="staff" />
    <g v-for="mark in section.staff" :key="mark.cm">
      <path :d="`M${section.left - 9} ${mark.y}h6`" class="staff" />
      <text :x="section.left - 12" :y="mark.y + (mark.cm === 0 ? -3 : 4.5)" text-anchor="end" class="axis">
        {{ long(mark.cm) }}
      </text>
    </g>
    <text :x="section.left + 8" :y="section.top - (section.vents ? 14 : 9)" class="high">
      {{ t('section.high', { height: longSaid(plan.height_cm) }) }}
    </text>
    <text :x="section.left" :y="section.ground + 27" class="axis">{{ size }}</text>
    <template v-if="hasRoom">
      <g v-for="(label, index) in beside" :key="index">
        <path
          :d="`M${label.from} ${label.at}L${label.x - 12} ${label.at}L${label.x - 4} ${label.y}`"
          class="leader"
        />
        <text :x="label.x" :y="label.y + 4.5" class="name strong">{{ label.number }}</text>
        <text :x="label.x + 24" :y="label.y + 4.5" class="name">{{ label.text }}</text>
      </g>
    </template>
  </svg>
</template>

<style scoped src="@/theme/section.css"></style>

<style scoped>
.beside {
  stroke-dasharray: 4 3;
}

.staff {
  stroke: var(--ink);
}

.leader {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 0.8;
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
