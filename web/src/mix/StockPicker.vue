<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { BatchPart, Lot } from '@/api/client'
import FrameDialog from '@/kit/FrameDialog.vue'
import PictureDrawer from '@/stock/PictureDrawer.vue'
import StockChoices from '@/plan/StockChoices.vue'
import { useDraft } from './draft'

/** All lots: a tap puts one on the bench or takes it off again, and the list stays open. Others may be fetched. */
const { lots } = defineProps<{ lots: Lot[] }>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ pick: [lot: Lot]; take: [parts: BatchPart[]] }>()

const { t } = useI18n()
const store = useDraft()

const on = computed(() => new Set(store.draft.items.map((part) => part.lot_id)))
function toggle(lot: Lot) {
  const at = store.draft.items.findIndex((part) => part.lot_id === lot.id)
  if (at >= 0) store.takeOff(at)
  else emit('pick', lot)
}

/** Whether what is in no stock is being tapped. */
const isTapping = defineModel<boolean>('tapping', { required: true })
function others() {
  open.value = false
  isTapping.value = true
}
</script>

<template>
  <FrameDialog v-model:visible="open" dismissable-mask class="stock-picker" :header="t('bench.addFromStock')">
    <StockChoices boxed :lots="lots" :chosen="on" @pick="toggle" />
    <button type="button" class="word-act" @click="others">{{ t('bench.addOther') }}</button>
  </FrameDialog>
  <PictureDrawer
    v-model:open="isTapping"
    :title="t('bench.addOther')"
    :does="(n) => t('grid.onBench', n)"
    @take="(parts) => emit('take', parts)"
  />
</template>

<style>
.stock-picker.p-dialog {
  width: min(480px, calc(100vw - 24px));
}
</style>
