<script setup lang="ts">
import { computed, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useBench } from '@/mix/useBench'
import { useMethod } from './useMethod'
import { useDraft } from '@/mix/draft'

/** The method of what lies on the bench, and the way to the page that helps to choose. */
const { t } = useI18n()
const store = useDraft()
const { answer, isFresh } = useBench()
const { methods, methodName, choose } = useMethod(computed(() => answer.value?.layers ?? null))

/** Another method may lay twigs below and build higher: its heap is fitted once it was reckoned with. */
let isToFit = false
function pick(id: string | null) {
  const before = store.draft.heap.shape
  choose(id)
  isToFit = store.draft.heap.shape !== before
}
watch([isFresh, answer], ([is]) => {
  if (!is || !isToFit) return
  isToFit = false
  const sensible = answer.value?.layers?.fit.shapes.find(({ shape }) => shape === store.draft.heap.shape)
  if (sensible) store.setMethod(store.draft.method, sensible)
})
</script>

<template>
  <div class="choice">
    <label for="method">{{ t('bench.method') }}</label>
    <select
      id="method"
      :value="store.draft.method ?? ''"
      @change="(event) => pick((event.target as HTMLSelectElement).value || null)"
    >
      <option value="">{{ t('bench.noMethod') }}</option>
      <option v-for="one in methods" :key="one.id" :value="one.id">{{ methodName(one.id) }}</option>
    </select>
    <RouterLink to="/methods" class="word-act which">{{ t('bench.whichMethod') }}</RouterLink>
  </div>
</template>

<style scoped>
.which {
  display: inline-flex;
  align-items: center;
  text-decoration: none;
}

.choice {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
}

label {
  font-weight: 600;
}

.choice select {
  flex: 1;
  min-width: 180px;
  max-width: 560px;
}
</style>
