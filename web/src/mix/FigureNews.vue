<script setup lang="ts">
import { computed, watch } from 'vue'
import type { Lot } from '@/api/client'
import { useSay } from '@/words/useSay'
import { newFigures } from './news'
import { useDraft } from './draft'

/**
 * What was measured since a mix was made. A mix that is not saved follows at
 * once; a saved one keeps its figures until the person takes the new ones.
 */
const { lots } = defineProps<{ lots: Lot[] }>()

const say = useSay()
const { t } = say
const store = useDraft()

const news = computed(() => newFigures(store.draft.items, lots))
const names = computed(() =>
  [...news.value.keys()]
    .map((index) => store.draft.items[index])
    .map((part) => (part ? say.nameOf(part.material, part.label) : ''))
    .join(', '),
)

watch(
  news,
  (found) => {
    if (found.size && !store.draft.saved) store.refigure(found)
  },
  { immediate: true },
)
</script>

<template>
  <p v-if="news.size && store.draft.saved" class="news">
    {{ t('bench.news', { names }) }}
    <button type="button" class="word-act" @click="store.refigure(news)">{{ t('bench.useNews') }}</button>
  </p>
</template>

<style scoped>
.news {
  margin: 0 0 8px;
  font-size: 0.9375rem;
  line-height: 1.3;
  padding-inline-start: 10px;
  border-inline-start: 3px solid var(--act);
}

.news button {
  min-height: 32px;
}
</style>
