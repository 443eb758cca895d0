<script setup lang="ts">
import TextInput from '@/kit/TextInput.vue'
import { ref } from 'vue'
import { type Material } from '@/api/client'
import FormDialog from '@/kit/FormDialog.vue'
import FormField from '@/kit/FormField.vue'
import { fieldAmong } from '@/kit/refusals'
import { useRefusals } from '@/kit/useRefusals'
import { useHalfTyped } from '@/kit/useHalfTyped'
import NumberField from '@/kit/NumberField.vue'
import { useAbout } from '@/farm/useFarm'
import { useLimits } from '@/api/useLimits'
import { useSay } from '@/words/useSay'
import { useSlip } from '@/kit/useSlip'
import { useSortedOut } from './useSortedOut'

/** Records that something was sorted out and not used. */
const { material } = defineProps<{ material: Material | null }>()
const open = defineModel<boolean>('open', { required: true })

const say = useSay()
const { t } = say
const slip = useSlip()
const { about } = useAbout()
const { add } = useSortedOut()

const kg = ref<number | null>(null)
const wentTo = ref('')
const limits = useLimits()
const day = ref('')
const { faults, forget, tried } = useRefusals('measures.stale', fieldAmong('kg', 'went_to', 'made_on'))

function begin() {
  kg.value = null
  wentTo.value = ''
  forget()
  day.value = about.value?.today ?? ''
}
const { ended } = useHalfTyped(
  () => open.value,
  () => material?.id ?? '',
  begin,
)

async function save() {
  if (!material) return
  const { id, name } = material
  await tried(async () => {
    await add.mutateAsync({
      material: id,
      kg: kg.value,
      went_to: wentTo.value.trim() || null,
      made_on: day.value,
    })
    ended()
    open.value = false
    slip.said({ text: t('sorted.done', { name }) })
  })
}
</script>

<template>
  <FormDialog
    v-model:open="open"
    class="sorted-dialog"
    :header="t('sorted.title')"
    :does="t('sorted.do')"
    :fault="faults.whole"
    :pending="add.isPending.value"
    @save="save"
    @cancel="ended"
  >
    <template v-if="material">
      <p>
        <b>{{ material.name }}</b>
      </p>
      <FormField id="sorted-kg" field="kg" :label="t('sorted.kg', { unit: say.sign('mass') })">
        <NumberField
          id="sorted-kg"
          v-model="kg"
          class="full"
          v-bind="limits.of('amount')"
          quantity="mass"
          empty
          autofocus
        />
      </FormField>
      <FormField
        id="sorted-went"
        v-slot="{ described }"
        field="went_to"
        :label="t('sorted.wentTo')"
        :hint="t('sorted.wentToHint')"
      >
        <TextInput
          id="sorted-went"
          v-model="wentTo"
          fluid
          :maxlength="limits.letters.value"
          :aria-describedby="described"
        />
      </FormField>
      <FormField id="sorted-day" field="made_on" :label="t('sorted.day')">
        <input id="sorted-day" v-model="day" type="date" class="full" :max="about?.today" />
      </FormField>
    </template>
  </FormDialog>
</template>
