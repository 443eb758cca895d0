<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useUnits } from '@/words/useUnits'
import type { HeapShape } from '@/api/client'
import type { Drawable } from './build'
import { drawSection, fillOf, sheetHeight } from '@/plan/section'

/** The heap as it grows: what was laid, the step at hand outlined, what is to come dashed; the staff marks where its top should be. */
const { plan, heap, hatches, laid, isUnreckoned, width, height } = defineProps<{
  plan: Drawable
  heap: HeapShape
  hatches: string[]
  /** How many steps were laid. */
  laid: number
  /** Whether how high it stands is not known yet: nothing is marked then. */
  isUnreckoned?: boolean
  width: number
  height: number
}>()

const { t } = useI18n()
const units = useUnits()
const long = (cm: number) => Math.round(units.shown(cm, 'length'))

const sheet = computed(() => ({ width, left: 52, right: 14, top: 16, bottom: 14 }))
const drawn = computed(() => sheetHeight(plan, sheet.value, height))
const section = computed(() =>
  drawSection(plan, { ...sheet.value, height: drawn.value }, units.kept(1, 'length'), heap.shape),
)
const now = computed(() => section.value.strata[laid])
/** The top of what is at hand, or of all of it. */
const mark = computed(() => now.value ?? section.value.strata.at(-1))

/** Where the sides slope in, the mark reaches to the layer. */
const reach = computed(() => 2 * section.value.left + section.value.width - (mark.value?.edge.x ?? 0))
</script>

<template>
  <svg
    :width="width"
    :height="drawn"
    :viewBox="`0 0 ${width} ${drawn}`"
    role="img"
    :aria-label="t('build.drawn', { laid, of: section.strata.length })"
  >
    <path v-if="section.sides" :d="section.sides" class="planned" />
    <template v-for="(stratum, at) in section.strata" :key="at">
      <path v-if="at > laid" :d="stratum.path" class="planned" />
      <g v-else>
        <path :d="stratum.path" class="sheet" />
        <path
          v-for="(cell, place) in stratum.cells"
          :key="place"
          :d="cell.path"
          :fill="fillOf(cell.item, stratum.band.role, hatches)"
        />
        <path v-if="at < laid" :d="stratum.path" class="layer" />
      </g>
    </template>
    <path v-if="section.vents" :d="section.vents" class="vent" />
    <path v-if="section.holder" :d="section.holder" class="wall" />
    <path v-if="now" :d="now.path" class="now" />
    <path :d="`M8 ${section.ground}H${width}`" class="ground" />
    <text :x="section.left - 10" :y="section.ground - 3" text-anchor="end" class="axis">0</text>
    <template v-if="mark && !isUnreckoned">
      <path :d="`M${section.left - 8} ${mark.y}H${reach}`" class="leader" />
      <text :x="section.left - 10" :y="mark.y + 5" text-anchor="end" class="mark">
        {{ long(mark.band.to) }}
      </text>
    </template>
  </svg>
</template>

<style scoped src="@/theme/section.css"></style>

<style scoped>
/* The action colour is the layer at hand. */
.vent {
  stroke: var(--ink-2);
}

.now {
  fill: none;
  stroke: var(--act);
  stroke-width: 2.6;
}

.leader {
  stroke: var(--act);
  stroke-width: 1.4;
}

.mark {
  font-size: 17px;
  font-weight: 680;
  fill: var(--act);
}
</style>
