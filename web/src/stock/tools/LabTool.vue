<script setup lang="ts">
import { computed, inject, ref, watch } from 'vue'
import type { Lot, Readings, TestAnswer } from '@/api/client'
import FormField from '@/kit/FormField.vue'
import NumberField from '@/kit/NumberField.vue'
import RangeBar from '@/mix/RangeBar.vue'
import { useMaterials } from '@/farm/useFarm'
import { FAULTS } from '@/kit/useRefusals'
import { useSay } from '@/words/useSay'
import ToolSteps from './ToolSteps.vue'

/** A laboratory's sheet, as it is read: carbon and nitrogen of one sample or several, beside the book. */
const { lot, first, answer } = defineProps<{
  lot: Lot
  first: Readings | null
  answer: TestAnswer | null
}>()
const emit = defineEmits<{ 'update:readings': [readings: Readings | null] }>()

const say = useSay()
const { t } = say
const { byId } = useMaterials()
const faults = inject(FAULTS, {})

type Lab = Extract<Readings, { kind: 'lab' }>
const begun: Lab | null = first?.kind === 'lab' ? first : null
const basis = ref<Lab['basis']>(begun?.basis ?? 'dry')
const moisture = ref<number | null>(begun?.moisture_pct ?? null)
/** The last row is where the next sample is typed. */
const samples = ref<{ c: number | null; n: number | null }[]>(
  begun ? begun.samples.map(({ c_pct, n_pct }) => ({ c: c_pct, n: n_pct })) : [{ c: null, n: null }],
)

watch(
  [basis, moisture, samples],
  () => {
    const read = samples.value.filter((one) => one.c !== null && one.n !== null)
    const isWhole = read.length > 0 && (basis.value === 'dry' || moisture.value !== null)
    emit(
      'update:readings',
      isWhole
        ? {
            kind: 'lab',
            basis: basis.value,
            moisture_pct: moisture.value,
            samples: read.map(({ c, n }) => ({ c_pct: c!, n_pct: n! })),
          }
        : null,
    )
  },
  { deep: true, immediate: true },
)

const material = computed(() => byId.value.get(lot.material) ?? null)
const rows = computed(() => {
  const of = material.value
  if (!of) return []
  const found = answer
  return (['c_n', 'n_pct'] as const).map((key) => ({
    key,
    book: of[key],
    value: found?.[key] ?? undefined,
    band: key === 'c_n' ? found?.c_n_band : found?.n_band_pct,
  }))
})
const span = (band?: number[] | null) =>
  band ? t('methods.range', { low: say.fine(band[0] ?? 0), high: say.fine(band[1] ?? 0) }) : ''
const fault = computed(() => faults.samples ?? faults.c_pct ?? faults.n_pct)
</script>

<template>
  <ToolSteps kind="lab" :count="3">
    <template #drawing>
      <dl class="beside">
        <div v-for="row in rows" :key="row.key">
          <dt>{{ t(`figure.${row.key}`) }}</dt>
          <dd>
            <RangeBar v-bind="row.book" :figure="row.key" :value="row.value" />
            <p>
              {{
                t('tool.lab.book', {
                  value: say.fine(row.book.typical),
                  range: span([row.book.low, row.book.high]),
                })
              }}
            </p>
            <p v-if="row.value !== undefined">
              <b>{{ t('tool.lab.sheet', { value: say.fine(row.value), range: span(row.band) }) }}</b>
            </p>
          </dd>
        </div>
      </dl>
    </template>
    <div class="field">
      <label for="lab-basis">{{ t('tool.lab.basis') }}</label>
      <select id="lab-basis" v-model="basis">
        <option value="dry">{{ t('tool.lab.dry') }}</option>
        <option value="received">{{ t('tool.lab.received') }}</option>
      </select>
    </div>
    <FormField id="lab-moisture" field="moisture_pct" :label="t('tool.lab.moisture')">
      <NumberField id="lab-moisture" v-model="moisture" class="full" :min="0" :max="99" :digits="1" empty />
    </FormField>
    <fieldset v-for="(sample, index) in samples" :key="index">
      <legend>{{ t('tool.lab.sample', { n: index + 1 }) }}</legend>
      <div class="pair">
        <div class="field">
          <label :for="`lab-c-${index}`">{{ t('tool.lab.carbon') }}</label>
          <NumberField :id="`lab-c-${index}`" v-model="sample.c" class="full" :max="95" :digits="2" empty />
        </div>
        <div class="field">
          <label :for="`lab-n-${index}`">{{ t('tool.lab.nitrogen') }}</label>
          <NumberField :id="`lab-n-${index}`" v-model="sample.n" class="full" :max="47" :digits="3" empty />
        </div>
      </div>
    </fieldset>
    <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
    <button
      v-if="samples.at(-1)?.c != null && samples.at(-1)?.n != null && samples.length < 20"
      type="button"
      class="word-act"
      @click="samples.push({ c: null, n: null })"
    >
      + {{ t('tool.lab.another') }}
    </button>
  </ToolSteps>
</template>

<style scoped>
fieldset {
  margin: 0;
  padding: 0;
  border: 0;
}

legend {
  margin-bottom: 4px;
  font-weight: 640;
}

.beside {
  margin: 0;
}

.beside > div {
  padding: 8px 0 12px;
  border-bottom: 1px solid var(--line);
}

dt {
  font-weight: 640;
}

dd {
  margin: 6px 0 0;
}

dd p {
  margin-top: 4px;
}
</style>
