<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { inject, nextTick, useTemplateRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import FrameDialog from './FrameDialog.vue'
import { isSound } from './sound'
import { FAULTS } from './useRefusals'

/** A dialog with a form: its fields, what was refused of the whole of it, and its two buttons. */
const { does, next, fault, pending, disabled } = defineProps<{
  /** What the button that sends it says. */
  does: string
  /** What a second one says that sends it and stays open for the next. */
  next?: string
  fault?: string
  pending?: boolean
  disabled?: boolean
}>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ save: [goesOn: boolean]; cancel: [] }>()
const { t } = useI18n()

/** What is refused on saving is gone to, since it may have been scrolled out of sight. */
const form = useTemplateRef('form')
const faults = inject(FAULTS, {})
let isAsked = false
function save(goesOn = false) {
  if (!isSound(form.value)) return
  isAsked = true
  emit('save', goesOn)
}
/** Put away on purpose, unlike what a back button or a stray tap closes. */
function cancel() {
  emit('cancel')
  open.value = false
}
watch(
  () => Object.keys(faults).length,
  async (count) => {
    if (!isAsked || !count) return
    isAsked = false
    await nextTick()
    const field = form.value?.querySelector<HTMLElement>('.field:has(.fault)')
    field?.querySelector('input')?.focus({ preventScroll: true })
    // With its label: a browser would go no further than the input.
    field?.scrollIntoView?.({ block: 'nearest' })
  },
)
</script>

<template>
  <FrameDialog v-model:visible="open" class="form-dialog">
    <form ref="form" novalidate @submit.prevent="save()">
      <slot />
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <div class="acts">
        <ActButton type="button" :label="t('app.cancel')" variant="outlined" @click="cancel" />
        <ActButton
          v-if="next"
          type="button"
          :label="next"
          variant="outlined"
          :disabled="disabled || pending"
          @click="save(true)"
        />
        <ActButton type="submit" :label="does" :loading="pending" :disabled="disabled || pending" />
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
