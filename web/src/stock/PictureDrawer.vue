<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, ref, watch } from 'vue'
import type { BatchPart } from '@/api/client'
import SideDrawer from '@/kit/SideDrawer.vue'
import { useMaterials } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import PictureGrid from './PictureGrid.vue'
import { partFrom, usualMeasure } from './sentence'
import { useStock } from './useStock'

/** Several materials at once by tapping their pictures; what is tapped stays until it is taken. */
const { title, does } = defineProps<{
  title: string
  /** What the button says, by how many there are. */
  does: (n: number) => string
}>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ take: [parts: BatchPart[]] }>()

const { t } = useSay()
const { byId } = useMaterials()
const { lots, measures } = useStock()

const counts = ref<Record<string, number>>({})
const chosen = computed(() => Object.entries(counts.value).filter(([, count]) => count > 0))

function take() {
  const parts = chosen.value.map(([id, amount]) => {
    const measure = usualMeasure(byId.value.get(id)?.kind ?? 'brown', measures.value ?? [])
    const said = measure
      ? { amount, unit: 'measure' as const, measure_id: measure.id }
      : { amount, unit: 'kg' as const, measure_id: null }
    return partFrom({ material: id }, said, lots.value ?? [], measures.value ?? [])
  })
  emit('take', parts)
  counts.value = {}
  open.value = false
}

// What was tapped before the drawer was closed by the back button is still there.
const isUsed = ref(false)
watch(open, (is) => is && (isUsed.value = true), { immediate: true })
</script>

<template>
  <SideDrawer v-model:open="open" :title="title">
    <PictureGrid v-if="isUsed" v-model="counts" />
    <footer>
      <ActButton fluid :disabled="!chosen.length" :label="does(chosen.length)" @click="take" />
      <p class="quiet small">{{ t('grid.hint') }}</p>
    </footer>
  </SideDrawer>
</template>

<style scoped>
footer {
  position: sticky;
  bottom: -20px;
  margin-top: 14px;
  padding: 10px 0 14px;
  background: var(--paper);
}
</style>
