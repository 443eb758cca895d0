<script setup lang="ts">
import { computed } from 'vue'
import type { Guess, HeapNow } from '@/api/client'
import { useSay } from '@/words/useSay'

/** What is left of a heap, and how sure that is. */
const { now } = defineProps<{ now: HeapNow }>()
const say = useSay()
const { t } = say

const row = (name: string, of: Guess, as: (value: number) => string) => ({
  name: t(`heap.now.${name}`),
  value: as(of.value),
  range: t('heap.now.range', { low: as(of.low), high: as(of.high) }),
  from: of.measured ? t('heap.now.measured', { n: of.measured }, of.measured) : t('heap.now.reckoned'),
})
const two = (value: number) => Number(value.toPrecision(2))
const rows = computed(() => [
  row('volume', now.volume_l, (litres) => say.heap(litres)),
  row('left', now.volume_left_pct, (share) => `${say.whole(share)} %`),
  row('moisture', now.moisture_pct, (share) => `${say.whole(share)} %`),
  row('mass', now.wet_kg, (kg) => say.kg(two(kg))),
  row('dry', now.dry_kg, (kg) => say.kg(two(kg))),
  row('cn', now.c_n, (ratio) => say.whole(ratio)),
])
</script>

<template>
  <dl>
    <div v-for="one in rows" :key="one.name">
      <dt>{{ one.name }}</dt>
      <dd>
        <b>{{ one.value }}</b>
        <span class="quiet small">{{ one.range }}, {{ one.from }}</span>
      </dd>
    </div>
  </dl>
</template>

<style scoped>
dl > div {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.5fr);
  gap: 10px;
  padding: 7px 0;
  border-bottom: 1px solid var(--line);
}

dd b {
  display: block;
  font-size: 1.0625rem;
}
</style>
