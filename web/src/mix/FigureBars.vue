<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import FigureBar from './FigureBar.vue'
import type { BenchFigure } from './useFigures'

/** The four figures of the bench in a row, each on its scale. */
const { figures } = defineProps<{ figures: BenchFigure[] }>()
const emit = defineEmits<{ open: [key: string] }>()
const { t } = useI18n()
</script>

<template>
  <div class="bars">
    <FigureBar
      v-for="{ key, ...figure } in figures"
      :key="key"
      v-bind="figure"
      :open="t('bench.working')"
      @open="emit('open', key)"
    />
  </div>
</template>

<style scoped>
.bars {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 26px;
  min-height: 112px;
  padding-top: 8px;
  border-top: 1.5px solid var(--ink);
}
</style>
