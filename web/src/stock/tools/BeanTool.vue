<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import type { Lot, Readings, TestAnswer } from '@/api/client'
import { useLimits } from '@/api/useLimits'
import FormField from '@/kit/FormField.vue'
import NumberField from '@/kit/NumberField.vue'
import { useAbout } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import ToolSteps from './ToolSteps.vue'

/** The bean test: beans in the suspect stuff beside beans in clean soil, judged after two to three weeks. */
const { first, answer, day } = defineProps<{
  lot: Lot
  first: Readings | null
  answer: TestAnswer | null
  /** The day they were sown. */
  day: string
}>()
const emit = defineEmits<{ 'update:readings': [readings: Readings | null] }>()

const say = useSay()
const limits = useLimits()
const { t } = say
const { about } = useAbout()

type Key = 'sown' | 'up' | 'deformed' | 'control_sown' | 'control_up' | 'control_deformed'

const begun = first?.kind === 'bean' ? first : null
const counts = reactive<Record<Key, number>>({
  sown: begun?.sown ?? 10,
  up: begun?.up ?? 0,
  deformed: begun?.deformed ?? 0,
  control_sown: begun?.control_sown ?? 10,
  control_up: begun?.control_up ?? 0,
  control_deformed: begun?.control_deformed ?? 0,
})
const isJudged = ref(begun !== null && begun.judged_on != null)
const judgedOn = ref(begun?.judged_on ?? '')
watch(isJudged, (now) => {
  if (now && !judgedOn.value) judgedOn.value = about.value?.today ?? ''
})

watch(
  [counts, isJudged, judgedOn],
  () =>
    emit('update:readings', {
      kind: 'bean',
      ...counts,
      judged_on: isJudged.value && judgedOn.value ? judgedOn.value : null,
    }),
  { deep: true, immediate: true },
)

const judgedDays = computed(() => limits.of('bean_days'))
const days = computed(() => answer?.days ?? 0)
const dayAt = (number: number) => 16 + (Math.min(28, Math.max(0, number)) / 28) * 268

const POTS = [
  { title: 'tool.bean.suspect', keys: ['sown', 'up', 'deformed'], y: 96 },
  { title: 'tool.bean.clean', keys: ['control_sown', 'control_up', 'control_deformed'], y: 196 },
] as const

/** Plants of a pot in a row: straight, deformed, or not come up. */
function plants([sown, up, deformed]: readonly [Key, Key, Key]) {
  const most = Math.min(counts[sown], 14)
  return Array.from({ length: most }, (_, index) => ({
    x: 24 + (index * 252) / Math.max(1, most - 1),
    how: index < counts[deformed] ? 'bent' : index < counts[up] ? 'straight' : 'none',
  }))
}
const SHAPES: Record<string, string> = {
  straight: 'M0 0V-34M0 -22q-11 -1 -12 -11q12 0 12 11M0 -30q11 -1 12 -11q-12 0 -12 11',
  bent: 'M0 0q7 -11 -2 -18q-6 -6 3 -12M-2 -18q-9 4 -8 -5q4 4 8 5M1 -30q9 5 8 -4q-5 3 -8 4',
  none: 'M-2 -2a2 2 0 1 0 4 0a2 2 0 1 0 -4 0',
}
</script>

<template>
  <ToolSteps kind="bean" :count="4">
    <template #drawing>
      <svg viewBox="0 0 300 290" role="img" :aria-label="t('tool.bean.drawing')">
        <g v-for="pot in POTS" :key="pot.title">
          <path
            v-for="(plant, index) in plants(pot.keys)"
            :key="index"
            :d="SHAPES[plant.how]"
            :transform="`translate(${plant.x} ${pot.y})`"
            :class="plant.how === 'bent' ? 'bent' : 'hatch-line'"
          />
          <path :d="`M10 ${pot.y}H290`" class="hatch-thick" />
          <text x="10" :y="pot.y + 17" class="note">{{ t(pot.title) }}</text>
        </g>
        <path d="M16 254H284" class="hatch-line" />
        <rect
          :x="dayAt(judgedDays.min)"
          y="246"
          :width="dayAt(judgedDays.max) - dayAt(judgedDays.min)"
          height="16"
          class="window"
        />
        <path :d="`M${dayAt(days)} 240v28`" class="today" />
        <text :x="dayAt(judgedDays.min)" y="282" text-anchor="middle" class="note">{{ judgedDays.min }}</text>
        <text :x="dayAt(judgedDays.max)" y="282" text-anchor="middle" class="note">
          {{ t('unit.days', judgedDays.max) }}
        </text>
      </svg>
    </template>
    <div class="pots">
      <div v-for="pot in POTS" :key="pot.title" role="group" :aria-label="t(pot.title)">
        <b>{{ t(pot.title) }}</b>
        <FormField
          v-for="key in pot.keys"
          :id="`bean-${key}`"
          :key="key"
          :field="key"
          :label="t(`reading.${key}`)"
        >
          <NumberField
            :id="`bean-${key}`"
            :model-value="counts[key]"
            class="full"
            :max="limits.of('beans').max"
            :digits="0"
            @update:model-value="(value) => (counts[key] = Math.round(value ?? 0))"
          />
        </FormField>
      </div>
    </div>
    <label class="check">
      <input v-model="isJudged" type="checkbox" />
      <span>{{ t('tool.bean.judge') }}</span>
    </label>
    <FormField v-if="isJudged" id="bean-judged" field="judged_on" :label="t('reading.judged_on')">
      <input id="bean-judged" v-model="judgedOn" type="date" :min="day" :max="about?.today" />
    </FormField>
    <p class="quiet small">{{ t('tool.bean.honest') }}</p>
  </ToolSteps>
</template>

<style scoped>
.pots {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 14px 24px;
}

.field {
  margin-top: 8px;
}

.window {
  fill: var(--tint);
  stroke: var(--ink-2);
}

.today {
  stroke: var(--act);
  stroke-width: 3;
}

.bent {
  fill: none;
  stroke: var(--alarm);
  stroke-width: 1.4;
}

.note {
  font-size: 13px;
  fill: var(--ink-2);
}
</style>
