<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref, watch } from 'vue'
import { type Material, Refused } from '@/api/client'
import FrameDialog from '@/kit/FrameDialog.vue'
import NumberField from '@/kit/NumberField.vue'
import { useAbout } from '@/farm/useFarm'
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
const day = ref('')
const fault = ref('')

watch(open, (isOpen) => {
  if (!isOpen) return
  kg.value = null
  wentTo.value = ''
  fault.value = ''
  day.value = about.value?.today ?? ''
})

async function save() {
  if (!material) return
  try {
    await add.mutateAsync({
      material: material.id,
      kg: kg.value,
      went_to: wentTo.value.trim() || null,
      made_on: day.value,
    })
    open.value = false
    slip.said({ text: t('sorted.done', { name: material.name }) })
  } catch (error) {
    fault.value = error instanceof Refused ? error.message : t('app.noServer')
  }
}
</script>

<template>
  <FrameDialog v-model:visible="open" class="sorted-dialog" :header="t('sorted.title')">
    <form v-if="material" novalidate @submit.prevent="save">
      <p>
        <b>{{ material.name }}</b>
      </p>
      <div class="field">
        <label for="sorted-kg">{{ t('sorted.kg', { unit: say.sign('mass') }) }}</label>
        <NumberField id="sorted-kg" v-model="kg" class="full" :max="100000" quantity="mass" empty autofocus />
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
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <div class="acts">
        <Button type="button" :label="t('app.cancel')" variant="outlined" @click="open = false" />
        <Button type="submit" :label="t('sorted.do')" :loading="add.isPending.value" />
      </div>
    </form>
  </FrameDialog>
</template>

<style>
.sorted-dialog.p-dialog {
  width: min(460px, calc(100vw - 16px));
}
</style>
