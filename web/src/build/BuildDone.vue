<script setup lang="ts">
import type { Heap } from '@/api/client'
import { useSay } from '@/words/useSay'

/** What was done to a heap, by whom and when, last on top. */
const { done } = defineProps<{ done: Heap['done'] }>()
const say = useSay()
const { t } = say

const what = ({ kind, step }: Heap['done'][number]) => t(`done.${kind}`, { step: (step ?? 0) + 1 })
</script>

<template>
  <ol>
    <li v-for="(one, at) in done" :key="at">
      <span>{{ what(one) }}</span>
      <span class="quiet small">{{ [one.by, one.device, say.time(one.at)].filter(Boolean).join(', ') }}</span>
    </li>
  </ol>
</template>

<style scoped>
ol {
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 16px;
  align-items: baseline;
  padding: 7px 0;
  border-top: 1px solid var(--line);
}
</style>
