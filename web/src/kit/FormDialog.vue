<script setup lang="ts">
import Button from 'primevue/button'
import { useI18n } from 'vue-i18n'
import FrameDialog from './FrameDialog.vue'

/** A dialog with a form: its fields, what was refused of the whole of it, and its two buttons. */
const { does, fault, pending, disabled } = defineProps<{
  /** What the button that sends it says. */
  does: string
  fault?: string
  pending?: boolean
  disabled?: boolean
}>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ save: [] }>()
const { t } = useI18n()
</script>

<template>
  <FrameDialog v-model:visible="open" class="form-dialog">
    <form novalidate @submit.prevent="emit('save')">
      <slot />
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <div class="acts">
        <Button type="button" :label="t('app.cancel')" variant="outlined" @click="open = false" />
        <Button type="submit" :label="does" :loading="pending" :disabled="disabled || pending" />
      </div>
    </form>
  </FrameDialog>
</template>

<style>
.form-dialog.p-dialog {
  width: min(460px, calc(100vw - 16px));
  max-height: calc(100dvh - 16px);
}
</style>
