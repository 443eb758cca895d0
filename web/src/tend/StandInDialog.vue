<script setup lang="ts">
import TextInput from '@/kit/TextInput.vue'
import { computed, ref, watch } from 'vue'
import type { RodFault } from '@/api/client'
import FormDialog from '@/kit/FormDialog.vue'
import FormField from '@/kit/FormField.vue'
import NumberField from '@/kit/NumberField.vue'
import { fieldAmong } from '@/kit/refusals'
import { useRefusals } from '@/kit/useRefusals'
import { useSay } from '@/words/useSay'
import { useSlip } from '@/kit/useSlip'
import { type StandsIn, useProbes } from './useProbes'

/** Plays a stand-in at any speed: a rod in a heap, sound or faulty, or the weather of a place. */
const { of } = defineProps<{ of: StandsIn }>()
const open = defineModel<boolean>('open', { required: true })
const { t } = useSay()
const slip = useSlip()
const { playRod, playStation } = useProbes(() => of)
const isRod = computed(() => of.kind === 'heap')
const { faults, forget, tried } = useRefusals(
  'probe.stale',
  fieldAmong('name', 'every_min', 'hours_a_second', 'fault_from_day'),
)

/** Hours of the heap that pass in a second; none: all at once. */
const SPEEDS = [null, 240, 24, 1] as const
const FAULTS: readonly (RodFault | null)[] = [null, 'stuck', 'dropped', 'spike', 'battery', 'clock']

const name = ref('')
const every = ref<number | null>(30)
const speed = ref<(typeof SPEEDS)[number]>(null)
const fault = ref<RodFault | null>(null)
const from = ref<number | null>(3)
const isPending = ref(false)
watch(open, (is) => {
  if (!is) return
  name.value = t(isRod.value ? 'probe.rod' : 'probe.station')
  forget()
})

async function save() {
  isPending.value = true
  await tried(async () => {
    if (isRod.value)
      await playRod({
        name: name.value,
        every_min: Math.round(every.value ?? 30),
        hours_a_second: speed.value,
        fault: fault.value,
        fault_from_day: fault.value ? (from.value ?? 0) : 0,
      })
    else await playStation({ name: name.value, hours_a_second: speed.value })
    open.value = false
    slip.said({ text: t('probe.plays', { name: name.value }) })
  })
  isPending.value = false
}
</script>

<template>
  <FormDialog
    v-model:open="open"
    :header="t(isRod ? 'probe.play' : 'probe.playWeather')"
    :does="t('probe.start')"
    :fault="faults.whole"
    :pending="isPending"
    @save="save"
  >
    <p>{{ t(isRod ? 'probe.playWhat' : 'probe.playWeatherWhat') }}</p>
    <FormField id="rod-name" field="name" :label="t('probe.name')">
      <TextInput id="rod-name" v-model="name" fluid :maxlength="80" />
    </FormField>
    <FormField v-if="isRod" id="rod-every" field="every_min" :label="t('probe.every')">
      <NumberField id="rod-every" v-model="every" class="full" :min="5" :max="1440" :digits="0" />
    </FormField>
    <FormField id="rod-speed" field="hours_a_second" :label="t('probe.speed')">
      <select id="rod-speed" v-model="speed" class="full">
        <option v-for="one in SPEEDS" :key="String(one)" :value="one">
          {{ one === null ? t('probe.atOnce') : t('probe.hoursASecond', { n: one }, one) }}
        </option>
      </select>
    </FormField>
    <FormField v-if="isRod" id="rod-fault" field="fault" :label="t('probe.faulty')">
      <select id="rod-fault" v-model="fault" class="full">
        <option v-for="one in FAULTS" :key="String(one)" :value="one">
          {{ t(`probe.fault.${one ?? 'none'}`) }}
        </option>
      </select>
    </FormField>
    <FormField v-if="isRod && fault" id="rod-from" field="fault_from_day" :label="t('probe.faultFrom')">
      <NumberField id="rod-from" v-model="from" class="full" :min="0" :max="730" :digits="0" />
    </FormField>
  </FormDialog>
</template>
