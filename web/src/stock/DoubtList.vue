<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Doubt } from '@/api/client'
import { useSay } from '@/words/useSay'

/** What in a row of figures cannot be true, or hardly, and why. It warns; it does not forbid. */
const { doubts } = defineProps<{ doubts: Doubt[] }>()
const { t } = useI18n()
const say = useSay()

/** Carbon has two sides: too much of it, or too little. */
function words(doubt: Doubt): string {
  return t(`doubt.${doubt.code}`, {
    share: say.whole(doubt.carbon_pct ?? 0),
    column: t(`column.${doubt.column}`),
  })
}
</script>

<template>
  <ul v-if="doubts.length" role="status">
    <li v-for="doubt in doubts" :key="doubt.code">{{ words(doubt) }}</li>
  </ul>
</template>

<style scoped>
ul {
  margin: 12px 0;
  padding-inline-start: 12px;
  border-inline-start: 3px solid var(--alarm);
}
</style>
