<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import { useHeaps } from '@/composables/useHeaps'
import { useSay } from '@/composables/useSay'

/** The heaps that are being built, and those that were. */
const say = useSay()
const { t } = say
const { heaps } = useHeaps()

const rows = computed(() =>
  (heaps.value ?? []).map((heap) => {
    const { name, build, changed_at } = heap
    const { laid, steps } = build
    const isBuilt = laid === steps.length
    return {
      heap,
      isBuilt,
      words: isBuilt
        ? t('build.isBuilt', { name, when: say.day(changed_at), height: say.length(build.height_cm) })
        : t('build.beingBuilt', { name, laid, of: steps.length }),
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
        <Button
          as="router-link"
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
