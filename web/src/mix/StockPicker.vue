<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Lot } from '@/api/client'
import FrameDialog from '@/kit/FrameDialog.vue'
import StockChoices from '@/plan/StockChoices.vue'

/** The lots that are not on the bench yet; a tap puts one on. */
const { lots } = defineProps<{ lots: Lot[] }>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ pick: [lot: Lot] }>()

const { t } = useI18n()
</script>

<template>
  <FrameDialog v-model:visible="open" dismissable-mask class="stock-picker" :header="t('bench.addFromStock')">
    <p v-if="lots.length === 0">
      {{ t('bench.allIn') }}. <RouterLink to="/stock">{{ t('bench.toStock') }}</RouterLink>
    </p>
    <StockChoices v-else :lots="lots" @pick="(lot) => emit('pick', lot)" />
  </FrameDialog>
</template>

<style>
.stock-picker.p-dialog {
  width: min(480px, calc(100vw - 24px));
}
</style>
