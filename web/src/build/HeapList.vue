<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed } from 'vue'
import { useHeaps } from './useHeaps'
import { useSay } from '@/words/useSay'

/** The heaps that are being built, and those that were. */
const say = useSay()
const { t } = say
const { heaps } = useHeaps()

const rows = computed(() =>
  (heaps.value ?? []).map((heap) => {
    const { name, laid, planned, changed_at, height_cm } = heap
    const isBuilt = laid === planned
    return {
      heap,
      isBuilt,
      words: isBuilt
        ? t('build.isBuilt', { name, when: say.day(changed_at), height: say.length(height_cm ?? 0) })
        : t('build.beingBuilt', { name, laid, of: planned }),
      open: t(isBuilt ? 'build.view' : 'build.goOn'),
      openNamed: t(isBuilt ? 'build.viewNamed' : 'build.goOnNamed', { name }),
    }
  }),
)
</script>

<template>
  <section v-if="rows.length" :aria-label="t('build.heaps')">
    <h2>{{ t('build.heaps') }}</h2>
    <ul>
      <li v-for="row in rows" :key="row.heap.id">
        <span>{{ row.words }}</span>
        <ActButton
          :to="`/build/${row.heap.id}`"
          :variant="row.isBuilt ? 'outlined' : undefined"
          :label="row.open"
          :aria-label="row.openNamed"
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
