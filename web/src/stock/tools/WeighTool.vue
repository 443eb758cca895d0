<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Lot, Readings, TestAnswer } from '@/api/client'
import { useMeasureList, useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import ReadingField from './ReadingField.vue'
import ScaleReader from './ScaleReader.vue'
import ToolSteps from './ToolSteps.vue'
import VesselField from './VesselField.vue'

/** Weigh one full measure: the loose density of a material. */
const { lot, first, answer } = defineProps<{
  lot: Lot
  first: Readings | null
  answer: TestAnswer | null
}>()
const emit = defineEmits<{ 'update:readings': [readings: Readings | null] }>()

const say = useSay()
const { t } = say
const { hatchOf } = useNames()
const { measures } = useMeasureList()

const begun = first?.kind === 'weigh' ? first : null
const litres = ref<number | null>(begun?.litres ?? null)
const full = ref<number | null>(begun?.full_kg ?? null)
const empty = ref<number | null>(begun?.empty_kg ?? null)

// The container the lot is counted in, as soon as the containers are known.
watch(
  measures,
  (found) => {
    if (found) litres.value ??= (say.measureOf(lot.measure_id) ?? found[0])?.litres ?? null
  },
  { immediate: true },
)
watch(
  [litres, full, empty],
  () => {
    const isWhole = litres.value !== null && full.value !== null && empty.value !== null
    emit(
      'update:readings',
      isWhole ? { kind: 'weigh', litres: litres.value!, full_kg: full.value!, empty_kg: empty.value! } : null,
    )
  },
  { immediate: true },
)

const suggest = computed(() => lot.figures.density_kg_l.value * (litres.value ?? 0) + (empty.value ?? 1))
/** The hand of the dial: half a turn and more for what the fullest measure here could weigh. */
const turn = computed(() => Math.min(300, ((full.value ?? 0) / Math.max(40, suggest.value * 1.5)) * 300))
</script>

<template>
  <ToolSteps kind="weigh" :count="3">
    <template #drawing>
      <svg viewBox="0 0 300 320" role="img" :aria-label="t('tool.weigh.drawing')">
        <path d="M150 6V30" class="hatch-thick" />
        <circle cx="150" cy="80" r="50" class="dial" />
        <path
          v-for="mark in 11"
          :key="mark"
          d="M150 34v8"
          class="hatch-line"
          :transform="`rotate(${(mark - 1) * 30} 150 80)`"
        />
        <path d="M150 80V44" class="hand" :transform="`rotate(${turn} 150 80)`" />
        <text x="212" y="86" class="dial-text">
          {{ full === null ? '' : say.of(full, 'mass') }}
        </text>
        <path d="M150 130v22M150 152q10 4 0 12M112 190q38-52 76 0" class="hatch-line" />
        <path d="M100 190h100l-14 110h-72z" class="sheet" />
        <path
          v-if="full !== null && full > (empty ?? 0)"
          d="M102 204h96l-12.200 96h-71.600z"
          :fill="`url(#${hatchOf(lot.material)})`"
        />
        <path d="M100 190h100l-14 110h-72z" class="hatch-thick" />
        <text x="216" y="250" class="note">{{ litres === null ? '' : say.litres(litres) }}</text>
        <text v-if="answer" x="84" y="250" text-anchor="end" class="note">
          {{ say.of((full ?? 0) - (empty ?? 0), 'mass') }}
        </text>
      </svg>
    </template>
    <VesselField v-model="litres" />
    <div class="pair">
      <ReadingField
        id="weigh-empty"
        v-model="empty"
        field="empty_kg"
        :label="t('tool.empty', { unit: say.sign('mass') })"
        within="weight_kg"
        quantity="mass"
      />
      <ReadingField
        id="weigh-full"
        v-model="full"
        field="full_kg"
        :label="t('tool.full', { unit: say.sign('mass') })"
        within="weight_kg"
        quantity="mass"
      />
    </div>
    <ScaleReader
      :key="empty === null ? 'empty' : 'full'"
      :suggest="empty === null ? 1 : suggest"
      @read="(kg) => (empty === null ? (empty = kg) : (full = kg))"
    />
  </ToolSteps>
</template>

<style scoped>
.dial,
.sheet {
  fill: var(--sheet);
}

.dial {
  stroke: var(--ink);
  stroke-width: 2;
}

.hand {
  stroke: var(--act);
  stroke-width: 3;
  stroke-linecap: round;
  transition: transform 0.4s;
}

.dial-text {
  font-size: 19px;
  font-weight: 660;
  fill: var(--ink);
}

.note {
  font-size: 14px;
  fill: var(--ink-2);
}
</style>
