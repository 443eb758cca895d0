<script setup lang="ts">
import { useOutbox } from '@/api/outbox/useOutbox'
import ActButton from '@/kit/ActButton.vue'
import FrameDialog from '@/kit/FrameDialog.vue'
import { useSay } from '@/words/useSay'

/** Before somebody goes whose acts are not with the farm yet. */
const open = defineModel<boolean>('open', { required: true })
defineEmits<{ leave: [] }>()
const { t } = useSay()
const outbox = useOutbox()
</script>

<template>
  <FrameDialog v-model:visible="open" class="save-dialog" :header="t('waits.leaving', outbox.waiting.length)">
    <p>{{ t('waits.leavingText') }}</p>
    <div class="choices">
      <ActButton to="/waiting" :label="t('waits.see')" />
      <ActButton variant="outlined" :label="t('waits.leaveAnyway')" @click="$emit('leave')" />
      <ActButton variant="text" :label="t('app.cancel')" @click="open = false" />
    </div>
  </FrameDialog>
</template>

<style scoped>
.choices {
  display: flex;
  flex-direction: column;
  gap: 10px;
  margin-top: 16px;
}
</style>
