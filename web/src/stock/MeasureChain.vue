<script setup lang="ts">
import '@/theme/controls'
import Select from 'primevue/select'
import { computed, ref, watch } from 'vue'
import type { Material } from '@/api/client'
import AmountStepper from '@/kit/AmountStepper.vue'
import MaterialPicker from './MaterialPicker.vue'
import { useMaterials } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { useStock } from './useStock'
import { useUnits } from '@/words/useUnits'
import { useWeight } from './useWeight'

/** How much so many measures of something are, with the density weighed here if there is one. */
const say = useSay()
const { t } = say
const units = useUnits()
const { lots, measures } = useStock()
const { byId } = useMaterials()

const count = ref(1)
const measureId = ref<string | null>(null)
const material = ref<Material | null>(null)
watch(measures, (found) => (measureId.value ??= found?.at(-1)?.id ?? null), { immediate: true })
watch(
  byId,
  (all) => {
    const [first] = lots.value ?? []
    material.value ??= first ? (all.get(first.material) ?? null) : null
  },
  { immediate: true },
)

const measure = computed(() => measures.value?.find((one) => one.id === measureId.value))
const choices = computed(() =>
  (measures.value ?? []).map((one) => ({
    value: one.id,
    label: `${one.plural} (${say.litres(one.litres)})`,
  })),
)
/** A lot of the material tells what is known of it here. */
const lot = computed(() => lots.value?.find((one) => one.material === material.value?.id))

const found = useWeight(
  computed(() => {
    if (!material.value || !measure.value || count.value <= 0) return null
    return {
      material: material.value.id,
      litres: count.value * measure.value.litres,
      ...lot.value?.own,
      tests: lot.value?.tests ?? [],
    }
  }),
)
const density = computed(() => found.value?.figures.density_kg_l)
</script>

<template>
  <section :aria-label="t('measures.chain')">
    <h2 class="ruled">{{ t('measures.chain') }}</h2>
    <p class="quiet small">{{ t('measures.chainHint') }}</p>
    <div class="asked">
      <AmountStepper v-model="count" :name="t('measures.count')" :label="t('measures.count')" :step="1" />
      <Select
        v-model="measureId"
        :options="choices"
        option-label="label"
        option-value="value"
        :aria-label="t('measures.which')"
        scroll-height="320px"
      />
    </div>
    <div class="field">
      <label for="chain-material">{{ t('measures.of') }}</label>
      <MaterialPicker v-model="material" input-id="chain-material" :is-first="false" />
    </div>
    <p v-if="found && measure" class="sum" aria-live="polite">
      <b>{{ say.kg(found.kg) }}</b>
      <span
        >{{ say.count(count) }} × {{ say.litres(measure.litres) }} = {{ say.litres(found.litres) }},
        {{
          t('measures.times', {
            density: `${say.fine(units.shown(density?.value ?? 0, 'density'))} ${units.sign('density')}`,
          })
        }}
        ({{ density?.test ? say.day(density.test.on) + ', ' : '' }}{{ t(`origin.${density?.origin}`) }})</span
      >
    </p>
  </section>
</template>

<style scoped>
section {
  display: flex;
  flex-direction: column;
  gap: 12px;
}

.asked {
  display: flex;
  gap: 12px;
}

.asked :deep(.p-select) {
  flex: 1;
  min-width: 0;
}

.sum b {
  display: block;
  font-size: 1.75rem;
  line-height: 1.2;
}
</style>
