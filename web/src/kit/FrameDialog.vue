<script setup lang="ts">
import '@/theme/controls'
import Dialog from 'primevue/dialog'
import { useI18n } from 'vue-i18n'
import { useBackCloses } from './useBackCloses'

/** A dialog with the close button that all of them share. What is set on it goes to the dialog. */
const visible = defineModel<boolean>('visible', { required: true })
const { t } = useI18n()
useBackCloses(visible)

/**
 * Once it stands still the library goes to the field that is marked for it. Whoever went on to another while it was
 * still opening, as on a slow phone, stays where they are typing.
 */
function stay({ target, currentTarget }: FocusEvent) {
  if (!(target instanceof HTMLElement) || !target.matches('input, select, textarea')) return
  for (const other of (currentTarget as HTMLElement).querySelectorAll('[autofocus]'))
    other.removeAttribute('autofocus')
  target.setAttribute('autofocus', '')
}
</script>

<template>
  <Dialog
    v-model:visible="visible"
    modal
    :close-button-props="{
      'aria-label': t('app.close'),
      severity: 'secondary',
      variant: 'text',
      rounded: true,
    }"
    @focusin="stay"
  >
    <slot />
  </Dialog>
</template>
