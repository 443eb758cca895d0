<script setup lang="ts">
import { computed } from 'vue'
import type { Guess, HeapNow } from '@/api/client'
import { useSay } from '@/words/useSay'
import { useUnits } from '@/words/useUnits'

/** What is left of a heap, and how sure that is. */
const { now } = defineProps<{ now: HeapNow }>()
const say = useSay()
const { t } = say
const units = useUnits()

/** "1.3 to 1.6 m³": the unit once. */
const row = (name: string, of: Guess, as: (value: number) => string, bare = as) => ({
  name: t(`heap.now.${name}`),
  value: as(of.value),
  range: t('heap.now.range', { low: bare(of.low), high: as(of.high) }),
  from: of.measured ? t('heap.now.measured', { n: of.measured }, of.measured) : t('heap.now.reckoned'),
})
const two = (value: number) => Number(value.toPrecision(2))
const share = (value: number) => `${say.whole(value)} %`
const kg = (value: number) => say.kg(two(value))
const bareKg = (value: number) => say.whole(units.shown(two(value), 'mass'))
const rows = computed(() => [
  row('volume', now.volume_l, (litres) => say.heap(litres), say.cubic),
  row('left', now.volume_left_pct, share, say.whole),
  row('moisture', now.moisture_pct, share, say.whole),
  row('mass', now.wet_kg, kg, bareKg),
  row('dry', now.dry_kg, kg, bareKg),
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
