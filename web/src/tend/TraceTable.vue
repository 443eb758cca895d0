<script setup lang="ts">
import { computed } from 'vue'
import type { Trace } from '@/api/client'
import { days } from './trace'
import { useLogWords } from './useLogWords'

/** The heat trace as a table, day by day. */
const { trace } = defineProps<{ trace: Trace }>()
const { say, t } = useLogWords()
const temp = (celsius: number | null) => (celsius === null ? '' : say.of(celsius, 'temperature'))
const rows = computed(() =>
  days(trace).map((day) => ({
    ...day,
    date: say.day(new Date(day.ms).toISOString()),
    words: day.done.map((kind) => t(`tend.kind.${kind}`)).join(', '),
  })),
)
</script>

<template>
  <!-- eslint-disable-next-line vuejs-accessibility/no-noninteractive-tabindex -->
  <div class="scrolled" tabindex="0" role="region" :aria-label="t('trace.asTable')">
    <table>
      <thead>
        <tr>
          <th scope="col">{{ t('trace.head.day') }}</th>
          <th scope="col">{{ t('trace.head.high') }}</th>
          <th scope="col">{{ t('trace.head.low') }}</th>
          <th scope="col">{{ t('trace.head.edge') }}</th>
          <th scope="col">{{ t('trace.head.done') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.day">
          <th scope="row">
            {{ t('trace.day', { day: row.day }) }} <span class="quiet small">{{ row.date }}</span>
          </th>
          <td>{{ temp(row.high) }}</td>
          <td>{{ temp(row.low) }}</td>
          <td>{{ temp(row.edge) }}</td>
          <td>{{ row.words }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scrolled {
  max-height: 420px;
  overflow: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  padding: 6px 10px 6px 0;
  border-bottom: 1px solid var(--line);
  text-align: start;
  font-weight: 400;
  vertical-align: top;
}

thead th {
  position: sticky;
  top: 0;
  background: var(--paper);
  font-weight: 640;
}

td:not(:last-child) {
  white-space: nowrap;
}
</style>
