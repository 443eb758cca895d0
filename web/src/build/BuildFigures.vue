<script setup lang="ts">
import { computed } from 'vue'
import type { BuildState } from '@/api/client'
import { useSay } from '@/words/useSay'
import { isUnreckoned } from './build'

/** C:N, water and height: as they are, as they will end, and what is aimed for. */
const { build } = defineProps<{ build: BuildState }>()
const say = useSay()
const { t } = say

const NONE = '–'
const ratio = (value?: number) => (value === undefined ? NONE : `${say.whole(value)} : 1`)
const percent = (value?: number) => (value === undefined ? NONE : `${say.whole(value)} %`)
const span = ([low = 0, high = 0]: number[]) =>
  t('build.span', { low: say.whole(low), high: say.whole(high) })

const isBuilt = computed(() => build.laid === build.steps.length)
const rows = computed(() => {
  const { so_far, at_end, windows, height_cm, end_height_cm } = build
  const height = (cm: number) => (isUnreckoned(build) ? NONE : say.length(cm))
  const now = {
    key: 'now',
    head: t(isBuilt.value ? 'build.asBuilt' : 'build.soFar'),
    ratio: ratio(so_far?.c_n_counted),
    moisture: percent(so_far?.moisture_pct),
    height: height(height_cm),
    // Half a heap is of one thing mostly: only the end can be off.
    off: { ratio: false, moisture: false },
  }
  const end = {
    key: 'end',
    head: t('build.atEnd'),
    ratio: ratio(at_end?.c_n_counted),
    moisture: percent(at_end?.moisture_pct),
    height: height(end_height_cm),
    off: { ratio: isOff(at_end?.standing.c_n), moisture: isOff(at_end?.standing.moisture) },
  }
  const aim = {
    key: 'aim',
    head: t('build.aim'),
    ratio: span(windows.c_n),
    moisture: `${span(windows.moisture_pct)} %`,
    height: '',
    off: { ratio: false, moisture: false },
  }
  return isBuilt.value ? [{ ...now, off: end.off }, aim] : [now, end, aim]
})
const isOff = (standing?: string) => standing !== undefined && standing !== 'right'
</script>

<template>
  <table>
    <caption class="only-read">
      {{
        t('build.figures')
      }}
    </caption>
    <thead>
      <tr>
        <td />
        <th scope="col">{{ t('build.ratio') }}</th>
        <th scope="col">{{ t('build.moisture') }}</th>
        <th scope="col">{{ t('build.height') }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.key" :class="row.key">
        <th scope="row">{{ row.head }}</th>
        <td :class="{ off: row.off.ratio }">{{ row.ratio }}</td>
        <td :class="{ off: row.off.moisture }">{{ row.moisture }}</td>
        <td>{{ row.height }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
  border-top: 1.5px solid var(--ink);
}

th,
td {
  padding: 3px 0;
  text-align: end;
  font-weight: 400;
  white-space: nowrap;
}

thead th,
.aim,
th[scope='row'] {
  font-size: 0.875rem;
  color: var(--ink-2);
}

th[scope='row'] {
  text-align: start;
}

.now td {
  font-size: 1.1875rem;
  font-weight: 660;
}

.off {
  font-weight: 680;
  text-decoration: underline wavy var(--alarm) 1.5px;
  text-underline-offset: 4px;
}
</style>
