<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, ref } from 'vue'
import LatelyList from '@/kit/LatelyList.vue'
import StateNote from '@/kit/StateNote.vue'
import type { HeapListed, HeapStrip as Strip } from '@/api/client'
import { useHeaps } from '@/build/useHeaps'
import HeatStrip from './HeatStrip.vue'
import TendDialog from './TendDialog.vue'
import type { TendKind } from './forms'
import { useLogWords } from './useLogWords'
import { useStrips } from './useStrips'

/** The heaps of a farm: how hot each was, day by day, and what was found last. */
const { say, t, temp } = useLogWords()
const { heaps } = useHeaps()
const { strips, error, retry } = useStrips()

/** What was emptied stands last. */
const rows = computed(() =>
  [...(heaps.value ?? [])]
    .sort((a, b) => Number(!!a.emptied_at) - Number(!!b.emptied_at))
    .map((heap) => ({ heap, strip: strips.value?.find(({ id }) => id === heap.id) ?? null }))
    .map(({ heap, strip }) => ({
      heap,
      strip,
      isBuilt: heap.laid > 0 && heap.laid === heap.planned,
      words: wordsOf(heap, strip),
    })),
)
function wordsOf(heap: HeapListed, strip: Strip | null): string {
  if (heap.emptied_at) return t('heap.emptied', { day: say.day(heap.emptied_at.slice(0, 10)) })
  if (!strip || heap.laid < heap.planned)
    return t('build.beingBuilt', { name: heap.name, laid: heap.laid, of: heap.planned })
  const age = t('heap.age', { day: Math.floor(strip.age_days) })
  const { last } = strip
  if (!last) return `${age}. ${t('trace.nothingRead')}`
  const found =
    last.temp_c === null || last.temp_c === undefined
      ? t('tend.stickIs', { feel: t(`tend.feel.${last.feel}`) })
      : t('tend.at.core', { temp: temp(last.temp_c) })
  return t('heap.found', { age, found, when: say.time(last.at) })
}
const headline = computed(() => {
  const built = rows.value.filter(({ isBuilt, heap }) => isBuilt && !heap.emptied_at)
  const hot = built.filter(({ strip }) => (strip?.last?.temp_c ?? 0) >= 55)
  if (!rows.value.length) return t('heap.none')
  return hot.length
    ? t('heap.someHot', { n: built.length, hot: hot.map(({ heap }) => heap.name).join(', ') }, built.length)
    : t('heap.some', { n: built.length }, built.length)
})

const kind = ref<TendKind | null>(null)
const picked = ref<HeapListed | null>(null)
function write(heap: HeapListed, what: TendKind) {
  picked.value = heap
  kind.value = what
}
</script>

<template>
  <header class="page-head">
    <div>
      <h1>{{ headline }}</h1>
      <p v-if="heaps && !rows.length">{{ t('heap.noneHint') }}</p>
    </div>
    <div v-if="heaps && !rows.length" class="acts">
      <ActButton to="/batches" :label="t('nav.batches')" />
    </div>
  </header>
  <StateNote v-if="!heaps" :error="error" @retry="retry" />
  <ul v-else class="heaps">
    <li v-for="row in rows" :key="row.heap.id">
      <div class="named">
        <h2>
          <RouterLink :to="row.isBuilt ? `/heaps/${row.heap.id}` : `/build/${row.heap.id}`" class="open">{{
            row.heap.name
          }}</RouterLink>
        </h2>
        <p>{{ row.words }}</p>
        <HeatStrip v-if="row.strip && row.isBuilt" :strip="row.strip" />
        <p v-if="row.strip?.is_simulated" class="quiet small">{{ t('trace.simulated') }}</p>
      </div>
      <div v-if="row.heap.emptied_at" class="row-acts">
        <ActButton to="/compost" variant="outlined" :label="t('nav.compost')" />
      </div>
      <div v-else-if="row.isBuilt" class="row-acts" data-deed="work">
        <ActButton
          variant="outlined"
          :label="t('tend.do.stick')"
          :aria-label="t('tend.title.stick', { name: row.heap.name })"
          @click="write(row.heap, 'stick')"
        />
        <ActButton
          variant="outlined"
          :label="t('tend.do.temperature')"
          :aria-label="t('tend.title.temperature', { name: row.heap.name })"
          @click="write(row.heap, 'temperature')"
        />
      </div>
      <div v-else class="row-acts">
        <ActButton
          :to="`/build/${row.heap.id}`"
          :label="t('build.goOn')"
          :aria-label="t('build.goOnNamed', { name: row.heap.name })"
        />
      </div>
    </li>
  </ul>
  <LatelyList :of="['heaps']" />
  <TendDialog v-if="picked" :heap="picked" :kind="kind" @close="kind = null" />
</template>

<style scoped>
.heaps {
  margin-top: 18px;
  border-top: 1.5px solid var(--ink);
}

li {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px 28px;
  align-items: center;
  padding: 14px 0;
  border-bottom: 1px solid var(--line);
}

li:hover {
  background: var(--paper-2);
}

h2 {
  font-size: 1.125rem;
}

.open {
  color: inherit;
  text-decoration: none;
}

.open::after {
  content: '';
  position: absolute;
  inset: 0;
}

.named :deep(svg) {
  max-width: 620px;
  margin-top: 8px;
}

.row-acts {
  position: relative;
  z-index: 1;
  display: flex;
  gap: 10px;
}

@media (max-width: 859px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
