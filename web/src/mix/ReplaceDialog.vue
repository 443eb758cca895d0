<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { ref, useTemplateRef } from 'vue'
import type { Batch } from '@/api/client'
import FrameDialog from '@/kit/FrameDialog.vue'
import SaveDialog from '@/plan/SaveDialog.vue'
import { useSay } from '@/words/useSay'
import { useDraft } from './draft'

/** Asks what shall become of a mix on the bench that is not saved, before another takes its place. */
const { t } = useSay()
const store = useDraft()

const asks = ref<{ name: string; answer: (may: boolean) => void } | null>(null)
const isNaming = ref(false)
const save = useTemplateRef('save')

/** Whether the bench may be cleared for a batch: at once where nothing is lost, else as the person says. */
function mayReplace(batch: Pick<Batch, 'id' | 'name'>): Promise<boolean> {
  const { items, saved } = store.draft
  const isLost = items.length > 0 && (saved === null || store.isChanged)
  if (!isLost) return Promise.resolve(true)
  return new Promise((answer) => (asks.value = { name: batch.name, answer }))
}

function say(may: boolean) {
  asks.value?.answer(may)
  asks.value = null
}

async function saveFirst() {
  if (!store.draft.saved) return (isNaming.value = true)
  await save.value?.saveAgain()
  if (!store.isChanged) say(true)
}

function saved(isOpen: boolean) {
  isNaming.value = isOpen
  if (!isOpen && store.draft.saved) say(true)
}

defineExpose({ mayReplace })
</script>

<template>
  <FrameDialog
    :visible="asks !== null"
    class="save-dialog"
    :header="t('replace.title')"
    @update:visible="say(false)"
  >
    <p>{{ t('replace.text', { name: asks?.name }) }}</p>
    <div class="choices">
      <ActButton :label="t('replace.save')" @click="saveFirst" />
      <ActButton :label="t('replace.go')" variant="outlined" @click="say(true)" />
      <ActButton :label="t('app.cancel')" variant="text" @click="say(false)" />
    </div>
  </FrameDialog>
  <SaveDialog ref="save" :open="isNaming" @update:open="saved" />
</template>

<style scoped>
.choices {
  display: flex;
  flex-direction: column;
  gap: 10px;
  margin-top: 16px;
}
</style>
