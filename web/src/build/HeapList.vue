<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed } from 'vue'
import { useHeaps } from './useHeaps'
import { useSay } from '@/words/useSay'

/** The heaps that are being built. */
const { t } = useSay()
const { heaps } = useHeaps()

const rows = computed(() =>
  (heaps.value ?? [])
    .filter(({ laid, planned }) => laid < planned)
    .map((heap) => ({
      heap,
      words: t('build.beingBuilt', { name: heap.name, laid: heap.laid, of: heap.planned }),
    })),
)
</script>

<template>
  <section v-if="rows.length" :aria-label="t('build.underWay')">
    <h2>{{ t('build.underWay') }}</h2>
    <ul>
      <li v-for="row in rows" :key="row.heap.id">
        <span>{{ row.words }}</span>
        <ActButton
          :to="`/build/${row.heap.id}`"
          :label="t('build.goOn')"
          :aria-label="t('build.goOnNamed', { name: row.heap.name })"
        />
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  margin-top: 18px;
  border-top: 1.5px solid var(--ink);
  padding-top: 5px;
}

li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 16px;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}

li > :last-child {
  flex: none;
  white-space: nowrap;
}
</style>
