<script setup lang="ts">
import type { FigureTold } from '@/api/client'
import { useFigureWords } from './useFigureWords'

/** What compost or soil holds, each figure with where it comes from; the range of what is estimated is drawn. */
const { figures } = defineProps<{ figures: FigureTold[] }>()
const { nameOf, valueOf, rangeOf, fromOf } = useFigureWords()
const at = ({ low, high, value }: FigureTold) => {
  if (low == null || high == null || high <= 0) return null
  return { left: (100 * low) / high, mark: (100 * value) / high }
}
</script>

<template>
  <dl>
    <div v-for="one in figures" :key="one.figure">
      <dt>{{ nameOf(one.figure) }}</dt>
      <dd>
        <b>{{ valueOf(one.figure, one.value) }}</b>
        <span v-if="at(one)" class="range" aria-hidden="true">
          <i :style="{ left: `${at(one)!.left}%` }" /><u :style="{ left: `${at(one)!.mark}%` }" />
        </span>
        <span class="quiet small">{{ [rangeOf(one), fromOf(one)].filter(Boolean).join(', ') }}</span>
      </dd>
    </div>
  </dl>
</template>

<style scoped>
dl > div {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.7fr);
  gap: 10px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}

dd {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: center;
  margin: 0;
}

.range {
  position: relative;
  width: 90px;
  height: 12px;
  border-bottom: 1px solid var(--line);
}

.range i {
  position: absolute;
  right: 0;
  bottom: 2px;
  height: 6px;
  background: var(--tint);
  border: 1px solid var(--ink-2);
}

.range u {
  position: absolute;
  bottom: 0;
  width: 2px;
  height: 12px;
  margin-left: -1px;
  background: var(--ink);
}
</style>
