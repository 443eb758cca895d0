<script setup lang="ts">
import Dialog from 'primevue/dialog'
import { useI18n } from 'vue-i18n'

/** A dialog with the close button that all of them share. What is set on it goes to the dialog. */
const { t } = useI18n()
</script>

<template>
  <Dialog
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
