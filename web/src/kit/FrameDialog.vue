<script setup lang="ts">
import '@/theme/controls'
import Dialog from 'primevue/dialog'
import { useI18n } from 'vue-i18n'
import { useBackCloses } from './useBackCloses'

/** A dialog with the close button that all of them share. What is set on it goes to the dialog. */
const visible = defineModel<boolean>('visible', { required: true })
const { t } = useI18n()
useBackCloses(visible)
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
  >
    <slot />
  </Dialog>
</template>
