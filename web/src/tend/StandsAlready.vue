<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answered, api } from '@/api/client'
import { useChanged } from '@/api/keys'
import FormDialog from '@/kit/FormDialog.vue'
import FormField from '@/kit/FormField.vue'
import { fieldAmong } from '@/kit/refusals'
import { useRefusals } from '@/kit/useRefusals'
import { useAbout } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { atOf, localOf, nowOf } from './when'

/** A heap that was built by a recipe before anybody wrote it down: its log begins on the day it was built. */
const batch = defineModel<{ id: string; name: string } | null>('batch', { required: true })
const router = useRouter()
const { t } = useSay()
const { about } = useAbout()
const refresh = useChanged('heap', 'batch')
const { faults, forget, tried } = useRefusals('measures.stale', fieldAmong('at'))

const when = ref('')
const isPending = ref(false)
const open = computed({
  get: () => batch.value !== null,
  set: (is) => {
    if (!is) batch.value = null
  },
})
watch(batch, (now) => {
  if (!now) return
  when.value = localOf(nowOf(about.value))
  forget()
})

async function save() {
  const of = batch.value
  const at = atOf(when.value)
  if (!of || !at) return
  isPending.value = true
  await tried(async () => {
    const params = { path: { id: of.id } }
    const heap = await answered(api.POST('/api/batches/{id}/built', { params, body: { at } }))
    await refresh()
    batch.value = null
    await router.push(`/heaps/${heap.id}`)
  })
  isPending.value = false
}
</script>

<template>
  <FormDialog
    v-model:open="open"
    :header="t('build.alreadyTitle', { name: batch?.name ?? '' })"
    :does="t('build.alreadyDo')"
    :fault="faults.whole"
    :pending="isPending"
    @save="save"
  >
    <p>{{ t('build.alreadyWhat') }}</p>
    <FormField id="built-at" field="at" :label="t('build.alreadyWhen')">
      <input
        id="built-at"
        v-model="when"
        type="datetime-local"
        class="full"
        :max="localOf(nowOf(about))"
        autofocus
      />
    </FormField>
  </FormDialog>
</template>
