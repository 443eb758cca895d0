<script setup lang="ts">
import { computed, inject, ref, watch } from 'vue'
import type { Lot, Readings, TestAnswer } from '@/api/client'
import { useLimits } from '@/api/useLimits'
import { FAULTS } from '@/kit/useRefusals'
import NumberField from '@/kit/NumberField.vue'
import { useSay } from '@/words/useSay'
import ReadingField from './ReadingField.vue'
import ScaleReader from './ScaleReader.vue'
import ToolSteps from './ToolSteps.vue'

/** The drying test: weighed wet, and again until the weight stops falling. */
const { lot, first, answer } = defineProps<{
  lot: Lot
  first: Readings | null
  answer: TestAnswer | null
}>()
const emit = defineEmits<{ 'update:readings': [readings: Readings | null] }>()

const say = useSay()
const faults = inject(FAULTS, {})
const limits = useLimits()
const { t } = say

const begun = first?.kind === 'drying' ? first : null
const dish = ref<number | null>(begun?.dish_g ?? null)
const wet = ref<number | null>(begun?.wet_g ?? null)
/** The last one is where the next weighing is typed. */
const dried = ref<(number | null)[]>(begun ? [...begun.dried_g, null] : [null])

watch(
  [dish, wet, dried],
  () => {
    const weighings = dried.value.filter((weight): weight is number => weight !== null)
    const isWhole = dish.value !== null && wet.value !== null && weighings.length > 0
    emit(
      'update:readings',
      isWhole ? { kind: 'drying', dish_g: dish.value!, wet_g: wet.value!, dried_g: weighings } : null,
    )
  },
  { deep: true, immediate: true },
)

/** The reader fills what is asked next. */
function take(kg: number) {
  const grams = Math.round(kg * 1000)
  if (dish.value === null) dish.value = grams
  else if (wet.value === null) wet.value = grams
  else if (dried.value.at(-1) === null) dried.value[dried.value.length - 1] = grams
  else dried.value.push(grams)
}
const suggest = computed(() => {
  if (dish.value === null) return 0.2
  if (wet.value === null) return dish.value / 1000 + 0.5
  const last = dried.value.findLast((weight) => weight !== null) ?? wet.value
  const dry = dish.value + (wet.value - dish.value) * (1 - lot.figures.moisture_pct.value / 100)
  return (last - (last - dry) * 0.8) / 1000
})

/** The fresh sample and each weighing as bars; what is gone since is water. */
const bars = computed(() => {
  const sample = (wet.value ?? 0) - (dish.value ?? 0)
  if (sample <= 0) return []
  return [wet.value, ...dried.value]
    .filter((weight): weight is number => weight !== null)
    .slice(0, 8)
    .map((weight, index) => {
      const left = Math.min(1, Math.max(0, (weight - (dish.value ?? 0)) / sample))
      return { x: 34 + index * 32, height: left * 200, index }
    })
})
</script>

<template>
  <ToolSteps kind="drying" :count="4">
    <template #drawing>
      <svg viewBox="0 0 300 290" role="img" :aria-label="t('tool.drying.drawing')">
        <template v-for="bar in bars" :key="bar.index">
          <rect :x="bar.x" y="40" width="24" :height="200 - bar.height" class="gone" />
          <rect :x="bar.x" :y="240 - bar.height" width="24" :height="bar.height" class="left" />
          <text :x="bar.x + 12" y="258" text-anchor="middle" class="note">
            {{ bar.index === 0 ? t('tool.drying.wet') : bar.index }}
          </text>
        </template>
        <path d="M24 240H290M24 240V40" class="hatch-line" />
        <text x="24" y="30" class="note">
          {{ answer ? t('tests.water', { water: say.whole(answer.moisture_pct ?? 0) }) : '' }}
        </text>
        <text x="290" y="280" text-anchor="end" class="note">{{ t('tool.drying.axis') }}</text>
      </svg>
    </template>
    <p class="care">{{ t('tool.drying.care') }}</p>
    <div class="pair">
      <ReadingField
        id="dry-dish"
        v-model="dish"
        field="dish_g"
        :label="t('tool.drying.dish', { unit: say.sign('sample') })"
        within="sample_g"
        quantity="sample"
      />
      <ReadingField
        id="dry-wet"
        v-model="wet"
        field="wet_g"
        :label="t('tool.drying.fresh', { unit: say.sign('sample') })"
        within="sample_g"
        quantity="sample"
      />
    </div>
    <div class="pair">
      <div v-for="(_, index) in dried" :key="index" class="field">
        <label :for="`dry-${index}`">{{
          t('tool.drying.dried', { n: index + 1, unit: say.sign('sample') })
        }}</label>
        <NumberField
          :id="`dry-${index}`"
          v-model="dried[index]!"
          class="full"
          v-bind="limits.of('sample_g')"
          quantity="sample"
          empty
        />
      </div>
      <p v-if="faults.dried_g" class="fault" role="alert">{{ faults.dried_g }}</p>
    </div>
    <button v-if="dried.at(-1) !== null" type="button" class="word-act" @click="dried.push(null)">
      + {{ t('tool.drying.again') }}
    </button>
    <ScaleReader :key="suggest" :suggest="suggest" @read="take" />
  </ToolSteps>
</template>

<style scoped>
.left {
  fill: var(--ink-2);
  stroke: var(--ink);
}

.gone {
  fill: url('#hatch-water');
  stroke: var(--line);
}

.note {
  font-size: 13px;
  fill: var(--ink-2);
}

.care {
  padding: 8px 12px;
  background: var(--paper-2);
  font-size: 0.9375rem;
}
</style>
