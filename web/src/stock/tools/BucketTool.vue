<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Lot, Readings, TestAnswer } from '@/api/client'
import { useLimits } from '@/api/useLimits'
import FormField from '@/kit/FormField.vue'
import NumberField from '@/kit/NumberField.vue'
import { useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import ReadingField from './ReadingField.vue'
import ScaleReader from './ScaleReader.vue'
import ToolSteps from './ToolSteps.vue'
import VesselField from './VesselField.vue'

/** The bucket test: packed density, and the air by filling up with water. */
const { lot, first, answer } = defineProps<{
  lot: Lot
  first: Readings | null
  answer: TestAnswer | null
}>()
const emit = defineEmits<{ 'update:readings': [readings: Readings | null] }>()

const say = useSay()
const limits = useLimits()
const { t } = say
const { hatchOf } = useNames()

const begun = first?.kind === 'bucket' ? first : null
const litres = ref<number | null>(begun?.litres ?? say.bucket()?.litres ?? null)
const full = ref<number | null>(begun?.full_kg ?? null)
const empty = ref<number | null>(begun?.empty_kg ?? null)
const water = ref<number | null>(begun?.water_l ?? null)

watch(
  () => say.bucket()?.litres,
  (found) => (litres.value ??= found ?? null),
)
watch(
  [litres, full, empty, water],
  () => {
    const isWhole = litres.value !== null && full.value !== null && empty.value !== null
    emit(
      'update:readings',
      isWhole
        ? {
            kind: 'bucket',
            litres: litres.value!,
            full_kg: full.value!,
            empty_kg: empty.value!,
            water_l: water.value,
          }
        : null,
    )
  },
  { immediate: true },
)

const packed = computed(() => lot.figures.density_kg_l.value / lot.figures.settle.value)
const suggest = computed(() => packed.value * (litres.value ?? 0) + (empty.value ?? 0.6))
/** The share that is air, drawn as water that could fill it. */
const air = computed(() => Math.min(100, Math.max(0, answer?.free_air_space_pct ?? 0)) / 100)
const line = computed(() => 40 + 210 * (1 - air.value))
const half = (y: number) => 90 - ((y - 40) / 210) * 18
</script>

<template>
  <ToolSteps kind="bucket" :count="4">
    <template #drawing>
      <svg viewBox="0 0 300 290" role="img" :aria-label="t('tool.bucket.drawing')">
        <path d="M60 40h180l-18 210H78z" :fill="`url(#${hatchOf(lot.material)})`" />
        <path v-if="answer" :d="`M${150 - half(line)} ${line}H${150 + half(line)}L222 250H78z`" class="air" />
        <path d="M66 110h168M72 180h156" class="third" />
        <path d="M60 40h180l-18 210H78z" class="hatch-thick" />
        <text x="150" y="22" text-anchor="middle" class="note">
          {{ litres === null ? '' : say.litres(litres) }}
        </text>
        <text
          v-if="answer?.free_air_space_pct != null"
          x="150"
          :y="Math.min(244, line + 22)"
          text-anchor="middle"
          class="strong"
        >
          {{ t('tests.air', { air: say.whole(answer.free_air_space_pct) }) }}
        </text>
        <text x="150" y="276" text-anchor="middle" class="note">
          {{ answer ? t(answer.air_by_water ? 'tool.bucket.byWater' : 'tool.bucket.byDensity') : '' }}
        </text>
      </svg>
    </template>
    <VesselField v-model="litres" />
    <div class="pair">
      <ReadingField
        id="bucket-empty"
        v-model="empty"
        field="empty_kg"
        :label="t('tool.empty', { unit: say.sign('mass') })"
        within="weight_kg"
        quantity="mass"
      />
      <ReadingField
        id="bucket-full"
        v-model="full"
        field="full_kg"
        :label="t('tool.full', { unit: say.sign('mass') })"
        within="weight_kg"
        quantity="mass"
      />
      <FormField
        id="bucket-water"
        field="water_l"
        :label="t('tool.bucket.water', { unit: say.sign('volume') })"
      >
        <NumberField
          id="bucket-water"
          v-model="water"
          class="full"
          v-bind="limits.of('measure_l')"
          quantity="volume"
          empty
        />
        <p class="quiet small">{{ t('tool.bucket.waterHint') }}</p>
      </FormField>
    </div>
    <ScaleReader
      :key="empty === null ? 'empty' : 'full'"
      :suggest="empty === null ? 0.6 : suggest"
      @read="(kg) => (empty === null ? (empty = kg) : (full = kg))"
    />
  </ToolSteps>
</template>

<style scoped>
.air {
  fill: var(--act);
  opacity: 0.28;
}

.third {
  fill: none;
  stroke: var(--ink);
  stroke-dasharray: 5 5;
}

.note {
  font-size: 14px;
  fill: var(--ink-2);
}

.strong {
  font-size: 17px;
  font-weight: 680;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 5px;
}
</style>
