<script setup lang="ts">
import '@/theme/controls'
import Drawer from 'primevue/drawer'
import { useI18n } from 'vue-i18n'
import { useBackCloses } from './useBackCloses'

/** A drawer from the right, over the page it explains. */
const { title } = defineProps<{ title: string }>()
const open = defineModel<boolean>('open', { required: true })
const { t } = useI18n()
useBackCloses(open)
</script>

<template>
  <Drawer
    v-model:visible="open"
    position="right"
    class="side-drawer"
    :header="title"
    :pt="{
      root: { 'aria-label': title },
      pcCloseButton: { root: { 'aria-label': t('app.close') } },
    }"
  >
    <slot />
  </Drawer>
</template>

<style>
.p-drawer-right .side-drawer.p-drawer {
  width: min(620px, 100vw);
}
</style>
