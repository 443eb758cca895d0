<script setup lang="ts">
import TextInput from '@/kit/TextInput.vue'
import { computed, ref } from 'vue'
import { type Site } from '@/api/client'
import FormDialog from '@/kit/FormDialog.vue'
import { useLimits } from '@/api/useLimits'
import FormField from '@/kit/FormField.vue'
import { fieldAmong } from '@/kit/refusals'
import { useRefusals } from '@/kit/useRefusals'
import { formOf, useHalfTyped } from '@/kit/useHalfTyped'
import ClimateChart from './ClimateChart.vue'
import NumberField from '@/kit/NumberField.vue'
import { useSay } from '@/words/useSay'
import { useSites } from './useSites'
import type { Quantity } from '@/words/units'

/** A site: its name, height above the sea, and what a year is like there. */
const { site } = defineProps<{ site: Site | null }>()
const open = defineModel<boolean>('open', { required: true })

const say = useSay()
const { t } = say
const { create, change, open: switchTo } = useSites()

const COLUMNS: { key: 'mean_c' | 'swing_c' | 'rain_mm'; quantity: Quantity }[] = [
  { key: 'mean_c', quantity: 'temperature' },
  { key: 'swing_c', quantity: 'swing' },
  { key: 'rain_mm', quantity: 'rain' },
]

const name = ref('')
const limits = useLimits()
const altitude = ref<number | null>(null)
const hasClimate = ref(false)
const months = ref<{ mean_c: number; swing_c: number; rain_mm: number }[]>([])
const { faults, forget, tried } = useRefusals('measures.stale', fieldAmong('name', 'altitude_m', 'climate'))

function begin() {
  forget()
  name.value = site?.name ?? ''
  altitude.value = site?.altitude_m ?? null
  hasClimate.value = !!site?.climate
  months.value =
    site?.climate?.map((one) => ({ ...one })) ??
    Array.from({ length: 12 }, () => ({ mean_c: 18, swing_c: 5, rain_mm: 60 }))
}
const { ended } = useHalfTyped(
  () => open.value,
  () => formOf(site),
  begin,
)

const monthName = (index: number) =>
  new Intl.DateTimeFormat(say.locale.value, { month: 'short', timeZone: 'UTC' }).format(
    Date.UTC(2026, index, 15),
  )
const isWhole = computed(() => name.value.trim() !== '')

async function save() {
  if (!isWhole.value) {
    faults.name = t('save.needName')
    return
  }
  const fields = {
    name: name.value,
    altitude_m: altitude.value,
    climate: hasClimate.value ? months.value : null,
  }
  await tried(async () => {
    if (site) await change.mutateAsync({ id: site.id, version: site.version, site: fields })
    else switchTo((await create.mutateAsync(fields)).id)
    ended()
    open.value = false
  })
}
</script>

<template>
  <FormDialog
    v-model:open="open"
    class="site-dialog"
    :header="t(site ? 'sites.editTitle' : 'sites.add')"
    :does="t('lot.save')"
    :fault="faults.whole"
    :pending="create.isPending.value || change.isPending.value"
    @save="save"
    @cancel="ended"
  >
    <div class="pair">
      <FormField id="site-name" v-slot="{ invalid }" field="name" :label="t('save.name')">
        <TextInput
          id="site-name"
          v-model="name"
          fluid
          :maxlength="limits.letters.value"
          :invalid="invalid"
          autofocus
        />
      </FormField>
      <FormField
        id="site-altitude"
        field="altitude_m"
        :label="t('sites.altitude', { unit: say.sign('altitude') })"
      >
        <NumberField
          id="site-altitude"
          v-model="altitude"
          class="full"
          v-bind="limits.of('altitude_m')"
          :digits="0"
          quantity="altitude"
          :step="50"
          empty
        />
      </FormField>
    </div>
    <label class="check">
      <input v-model="hasClimate" type="checkbox" />
      <span>{{ t('sites.climate') }}</span>
    </label>
    <template v-if="hasClimate">
      <ClimateChart :months="months" />
      <p v-if="faults.climate" class="fault" role="alert">{{ faults.climate }}</p>
      <table>
        <thead>
          <tr>
            <th scope="col">{{ t('sites.month') }}</th>
            <th v-for="column in COLUMNS" :key="column.key" scope="col">
              {{ t(`sites.column.${column.key}`) }}, {{ say.sign(column.quantity) }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(month, index) in months" :key="index">
            <th scope="row">{{ monthName(index) }}</th>
            <td v-for="column in COLUMNS" :key="column.key">
              <NumberField
                :model-value="month[column.key]"
                class="full"
                v-bind="limits.in('month', column.key)"
                :digits="1"
                :quantity="column.quantity"
                :aria-label="`${monthName(index)}, ${t(`sites.column.${column.key}`)}`"
                @update:model-value="(value) => (month[column.key] = value ?? 0)"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </template>
  </FormDialog>
</template>

<style>
.site-dialog.p-dialog {
  width: min(560px, calc(100vw - 16px));
  max-height: calc(100dvh - 16px);
}
</style>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}

th {
  padding: 2px 8px 2px 0;
  text-align: start;
  font-weight: 600;
}

thead th {
  font-size: 0.875rem;
  font-weight: 400;
  line-height: 1.2;
  color: var(--ink-2);
  vertical-align: bottom;
}

td {
  padding: 2px 6px 2px 0;
}
</style>
