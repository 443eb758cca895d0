<script lang="ts">
import { later, opens } from '@/kit/later'

const correct = later(() => import('./CorrectDrawer.vue'))
const saving = later(() => import('@/plan/SaveDialog.vue'))
const picker = later(() => import('./StockPicker.vue'))
const workings = later(() => import('./WorkingDrawer.vue'))
</script>

<script setup lang="ts">
import { nextTick, useTemplateRef } from 'vue'
import type { BatchPart, BenchRequest, Lot } from '@/api/client'

/** What opens over the bench, each fetched when it first does. */
const { request, lots, names } = defineProps<{ request: BenchRequest; lots: Lot[]; names: string[] }>()
const picking = defineModel<boolean>('picking', { required: true })
const tapping = defineModel<boolean>('tapping', { required: true })
const mending = defineModel<boolean>('mending', { required: true })
const naming = defineModel<boolean>('naming', { required: true })
const working = defineModel<string | null>('working', { required: true })
const emit = defineEmits<{ pick: [lot: Lot]; take: [parts: BatchPart[]] }>()

opens(saving, naming)
opens(picker, picking, tapping)
opens(correct, mending)
opens(workings, working)
const { part: SaveDialog } = saving
const { part: StockPicker } = picker
const { part: CorrectDrawer } = correct
const { part: WorkingDrawer } = workings

const save = useTemplateRef<{ saveAgain: () => Promise<void> }>('save')
async function saveAgain() {
  if (!(await saving.fetch())) return
  await nextTick()
  await save.value?.saveAgain()
}
defineExpose({ saveAgain })
</script>

<template>
  <component
    :is="StockPicker"
    v-if="StockPicker"
    v-model:open="picking"
    v-model:tapping="tapping"
    :lots="lots"
    @pick="(lot: Lot) => emit('pick', lot)"
    @take="(parts: BatchPart[]) => emit('take', parts)"
  />
  <component :is="SaveDialog" v-if="SaveDialog" ref="save" v-model:open="naming" />
  <component :is="CorrectDrawer" v-if="CorrectDrawer" v-model:open="mending" :request="request" />
  <component
    :is="WorkingDrawer"
    v-if="WorkingDrawer"
    v-model="working"
    :recipe="request.recipe"
    :names="names"
  />
</template>
