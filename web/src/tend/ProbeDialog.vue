<script setup lang="ts">
import TextInput from '@/kit/TextInput.vue'
import { computed, ref, watch } from 'vue'
import type { ProbeMade } from '@/api/client'
import ActButton from '@/kit/ActButton.vue'
import FormDialog from '@/kit/FormDialog.vue'
import FormField from '@/kit/FormField.vue'
import FrameDialog from '@/kit/FrameDialog.vue'
import { fieldAmong } from '@/kit/refusals'
import { useRefusals } from '@/kit/useRefusals'
import { useSay } from '@/words/useSay'
import { type StandsIn, useProbes } from './useProbes'

/** Writes a probe down and tells, once, what it is to send to be known. */
const of = defineModel<StandsIn | null>('of', { required: true })
const open = computed({
  get: () => of.value !== null,
  set: (is) => {
    if (!is) of.value = null
  },
})
const { t } = useSay()
const { add } = useProbes(() => of.value ?? { kind: 'heap', id: '' })
const { faults, forget, tried } = useRefusals('probe.stale', fieldAmong('name'))

const name = ref('')
const isPending = ref(false)
const made = ref<ProbeMade | null>(null)
watch(open, (is) => {
  if (!is) return
  name.value = ''
  forget()
})

async function save() {
  isPending.value = true
  await tried(async () => {
    kind.value = of.value?.kind ?? 'heap'
    made.value = await add(name.value)
    of.value = null
  })
  isPending.value = false
}
const address = () => `${location.origin}/api/readings`
/** What is read of a heap and of the air of a place, each as a probe sends it. */
const READS = {
  heap: '[{"n":"core","u":"Cel","v":57.2},{"n":"edge","u":"Cel","v":31.5}]',
  site: '[{"n":"air","u":"Cel","v":14.5},{"n":"rain","u":"mm","v":2}]',
}
const kind = ref<StandsIn['kind']>('heap')
const example = () =>
  `curl ${address()} -H 'Authorization: Bearer ${made.value?.token}' -H 'Content-Type: application/senml+json' -d '${READS[kind.value]}'`
</script>

<template>
  <FormDialog
    v-model:open="open"
    :header="t(of?.kind === 'site' ? 'probe.addWeather' : 'probe.add')"
    :does="t('probe.make')"
    :fault="faults.whole"
    :pending="isPending"
    @save="save"
  >
    <p>{{ t('probe.what') }}</p>
    <FormField id="probe-name" field="name" :label="t('probe.name')">
      <TextInput id="probe-name" v-model="name" fluid :maxlength="80" autofocus />
    </FormField>
  </FormDialog>
  <FrameDialog
    :visible="made !== null"
    class="probe-made"
    :header="t('probe.made', { name: made?.name ?? '' })"
    @update:visible="made = null"
  >
    <p>{{ t('probe.once') }}</p>
    <p class="token">
      <code>{{ made?.token }}</code>
    </p>
    <p>{{ t('probe.how') }}</p>
    <pre tabindex="0">{{ example() }}</pre>
    <div class="acts">
      <ActButton :label="t('app.close')" @click="made = null" />
    </div>
  </FrameDialog>
</template>

<style>
.probe-made.p-dialog {
  width: min(560px, calc(100vw - 16px));
}

.probe-made .token {
  margin: 10px 0;
  font-size: 1.125rem;
  overflow-wrap: anywhere;
}

.probe-made pre {
  margin: 8px 0 16px;
  padding: 10px;
  background: var(--paper-2);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
</style>
