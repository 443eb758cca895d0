<script setup lang="ts">
import { computed } from 'vue'
import { useSay } from '@/words/useSay'
import { beside, type Held } from './figures'
import { useFigureWords } from './useFigureWords'

/** Results beside each other on one picture: what was estimated, what was found, in compost and in soil. */
const { all } = defineProps<{ all: Held[] }>()
const { t } = useSay()
const { nameOf, valueOf } = useFigureWords()
const rows = computed(() => beside(all))
const WIDE = 300
const x = (share: number) => 8 + share * (WIDE - 16)
</script>

<template>
  <ul class="rows">
    <li v-for="row in rows" :key="row.figure">
      <h3>
        {{ nameOf(row.figure) }}
        <span class="quiet small">{{ t('lab.upTo', { most: valueOf(row.figure, row.most) }) }}</span>
      </h3>
      <ol>
        <li v-for="mark in row.marks" :key="mark.key">
          <span>{{ mark.name }}</span>
          <svg :viewBox="`0 0 ${WIDE} 18`" preserveAspectRatio="none" aria-hidden="true">
            <path :d="`M${x(0)} 9H${x(1)}`" class="line" />
            <path v-if="mark.to > mark.from" :d="`M${x(mark.from)} 9H${x(mark.to)}`" class="span" />
          </svg>
          <i :class="mark.kind" :style="{ '--at': mark.at }" aria-hidden="true" />
          <b>{{ valueOf(row.figure, mark.value) }}</b>
        </li>
      </ol>
    </li>
  </ul>
</template>

<style scoped>
.rows {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 420px), 1fr));
  gap: 14px 36px;
}

h3 {
  font-size: 1rem;
  font-weight: 640;
}

ol li {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 38%) minmax(0, 1fr) 92px;
  gap: 10px;
  align-items: center;
  padding: 3px 0;
  font-size: 0.9375rem;
}

ol li > span {
  overflow-wrap: anywhere;
}

svg {
  grid-column: 2;
  grid-row: 1;
  width: 100%;
  height: 18px;
}

.line {
  stroke: var(--line);
  stroke-width: 1;
}

.span {
  stroke: var(--ink-2);
  stroke-width: 5;
  opacity: 0.35;
}

i {
  grid-column: 2;
  grid-row: 1;
  position: relative;
  width: 12px;
  height: 12px;
  left: calc(2.7% + var(--at) * 94.6% - 6px);
  border: 2px solid var(--ink);
  background: var(--sheet);
}

i.compost {
  border-radius: 50%;
  background: var(--ink);
}

i.soil {
  transform: rotate(45deg);
  background: var(--act);
}

b {
  grid-column: 3;
  grid-row: 1;
  text-align: right;
  font-variant-numeric: tabular-nums;
}
</style>
