<script setup lang="ts">
import TextInput from '@/kit/TextInput.vue'
import { ref, watch } from 'vue'
import type { ProbeMade } from '@/api/client'
import ActButton from '@/kit/ActButton.vue'
import FormDialog from '@/kit/FormDialog.vue'
import FormField from '@/kit/FormField.vue'
import FrameDialog from '@/kit/FrameDialog.vue'
import { fieldAmong } from '@/kit/refusals'
import { useRefusals } from '@/kit/useRefusals'
import { useSay } from '@/words/useSay'
import { useProbes } from './useProbes'

/** Writes a probe down and tells, once, what it is to send to be known. */
const { id } = defineProps<{ id: string }>()
const open = defineModel<boolean>('open', { required: true })
const { t } = useSay()
const { add } = useProbes(() => id)
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
    made.value = await add(name.value)
    open.value = false
  })
  isPending.value = false
}
const address = () => `${location.origin}/api/readings`
const example = () =>
  `curl ${address()} -H 'Authorization: Bearer ${made.value?.token}' -H 'Content-Type: application/senml+json' -d '[{"n":"core","u":"Cel","v":57.2},{"n":"edge","u":"Cel","v":31.5}]'`
</script>

<template>
  <FormDialog
    v-model:open="open"
    :header="t('probe.add')"
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
