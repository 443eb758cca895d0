<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { ref, watch } from 'vue'
import { type Material } from '@/api/client'
import FormDialog from '@/kit/FormDialog.vue'
import { useRefusals } from '@/kit/useRefusals'
import NumberField from '@/kit/NumberField.vue'
import { useAbout } from '@/farm/useFarm'
import { useLimits } from '@/farm/useLimits'
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
const { faults, forget, tried } = useRefusals('measures.stale')

watch(open, (isOpen) => {
  if (!isOpen) return
  kg.value = null
  wentTo.value = ''
  forget()
  day.value = about.value?.today ?? ''
})

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
  >
    <template v-if="material">
      <p>
        <b>{{ material.name }}</b>
      </p>
      <div class="field">
        <label for="sorted-kg">{{ t('sorted.kg', { unit: say.sign('mass') }) }}</label>
        <NumberField
          id="sorted-kg"
          v-model="kg"
          class="full"
          v-bind="limits.of('amount')"
          quantity="mass"
          empty
          autofocus
        />
      </div>
      <div class="field">
        <label for="sorted-went">{{ t('sorted.wentTo') }}</label>
        <InputText id="sorted-went" v-model="wentTo" fluid :maxlength="80" />
        <p class="quiet small">{{ t('sorted.wentToHint') }}</p>
      </div>
      <div class="field">
        <label for="sorted-day">{{ t('sorted.day') }}</label>
        <input id="sorted-day" v-model="day" type="date" class="full" :max="about?.today" />
      </div>
    </template>
  </FormDialog>
</template>
