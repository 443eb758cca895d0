<script setup lang="ts">
import '@/theme/controls'
import { useLimits } from '@/api/useLimits'
import Select from 'primevue/select'
import { computed } from 'vue'
import FormField from '@/kit/FormField.vue'
import NumberField from '@/kit/NumberField.vue'
import { useSay } from '@/words/useSay'
import { useMeasureList } from '@/farm/useFarm'

/** Which container a test is made with: one of the farm's, or so many litres. */
const litres = defineModel<number | null>({ required: true })

const say = useSay()
const { t } = say
const limits = useLimits()
const { measures } = useMeasureList()

const OTHER = -1
const choices = computed(() => [
  ...(measures.value ?? []).map((one) => ({
    value: one.id,
    label: `${one.name} (${say.litres(one.litres)})`,
  })),
  { value: OTHER, label: t('tool.otherVessel') },
])
const chosen = computed({
  get: () => measures.value?.find((one) => one.litres === litres.value)?.id ?? OTHER,
  set: (id) => (litres.value = measures.value?.find((one) => one.id === id)?.litres ?? null),
})
</script>

<template>
  <div class="pair">
    <div class="field">
      <span id="vessel" class="label">{{ t('tool.vessel') }}</span>
      <Select
        v-model="chosen"
        :options="choices"
        option-label="label"
        option-value="value"
        fluid
        aria-labelledby="vessel"
        scroll-height="320px"
      />
    </div>
    <FormField
      v-if="chosen === OTHER"
      id="vessel-litres"
      field="litres"
      :label="t('tool.vesselHolds', { unit: say.sign('volume') })"
    >
      <NumberField
        id="vessel-litres"
        v-model="litres"
        class="full"
        v-bind="limits.of('measure_l')"
        quantity="volume"
        empty
      />
    </FormField>
  </div>
</template>
