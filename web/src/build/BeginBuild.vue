<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { ref, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import SaveDialog from '@/plan/SaveDialog.vue'
import { useAttempt } from '@/kit/useAttempt'
import { useHeaps } from './useHeaps'
import { useSay } from '@/words/useSay'
import { useDraft } from '@/mix/draft'

/** Begins build day with what lies on the bench; it is saved first, so that nothing is lost. */
const { t } = useSay()
const store = useDraft()
const router = useRouter()
const { begin } = useHeaps()
const { attempt } = useAttempt()

const saving = ref(false)
const wanted = ref(false)
const dialog = useTemplateRef<{ saveAgain: () => Promise<void> }>('dialog')

async function start() {
  const { saved } = store.draft
  wanted.value = true
  if (!saved) saving.value = true
  else if (store.isChanged) await dialog.value?.saveAgain()
  else await build(saved.id)
}

async function build(batch: string) {
  wanted.value = false
  await attempt(async () => {
    const heap = await begin.mutateAsync(batch)
    await router.push(`/build/${heap.id}`)
  })
}

watch(
  () => store.draft.saved,
  (saved) => {
    if (!wanted.value || !saved) return
    // What changed while it was being saved, such as a heap fitted to its method, is saved too.
    if (store.isChanged) void dialog.value?.saveAgain()
    else void build(saved.id)
  },
)
watch(saving, (isOpen) => {
  if (!isOpen && !store.draft.saved) wanted.value = false
})
</script>

<template>
  <ActButton data-deed="work" :label="t('build.begin')" :loading="begin.isPending.value" @click="start" />
  <SaveDialog ref="dialog" v-model:open="saving" />
</template>
