<script setup lang="ts">
import { computed } from 'vue'
import type { Confidence } from '@/api/client'
import { useSay } from '@/words/useSay'
import { useSure } from './useSure'

/** How sure a mix is, laid open: what each figure was drawn from, and what came out. */
const { sure, names } = defineProps<{ sure: Confidence; names: string[] }>()

const say = useSay()
const { t } = say
const { between, chance } = useSure()

const middles = computed(() => [
  { name: t('bench.ratio'), text: between(sure.c_n) },
  { name: t('bench.moisture'), text: `${between(sure.moisture_pct)} %` },
  { name: t('bench.air'), text: `${between(sure.free_air_space_pct)} %` },
])
const rows = computed(() =>
  sure.ranges.map((range, place) => ({
    name: names[place] ?? '',
    counted: t(`sure.counted.${range.counted}`),
    cells: [range.n_pct, range.c_n, range.moisture_pct, range.density_kg_l].map((three) =>
      three.map((value) => say.fine(value)),
    ),
  })),
)
const HEADS = ['n_pct', 'c_n', 'moisture_pct', 'density_kg_l'] as const
</script>

<template>
  <p>{{ t('sure.how', { draws: say.exact(sure.draws), seed: sure.seed }) }}</p>
  <dl>
    <div v-for="middle in middles" :key="middle.name">
      <dt>{{ middle.name }}</dt>
      <dd>
        <b>{{ middle.text }}</b>
      </dd>
    </div>
    <div>
      <dt>{{ t('sure.inAim') }}</dt>
      <dd>{{ chance(sure.in_aim_pct) }}</dd>
    </div>
    <div>
      <dt>{{ t('sure.inWorkable') }}</dt>
      <dd>{{ chance(sure.in_workable_pct) }}</dd>
    </div>
  </dl>
  <section v-for="row in rows" :key="row.name">
    <h3>{{ row.name }}</h3>
    <p class="quiet small">{{ row.counted }}</p>
    <table>
      <thead>
        <tr>
          <td></td>
          <th scope="col">{{ t('sure.low') }}</th>
          <th scope="col">{{ t('sure.usual') }}</th>
          <th scope="col">{{ t('sure.high') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(three, at) in row.cells" :key="at">
          <th scope="row">{{ t(`sure.figure.${HEADS[at]}`) }}</th>
          <td v-for="(cell, index) in three" :key="index">{{ cell }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
dl > div {
  display: flex;
  justify-content: space-between;
  gap: 14px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}

h3 {
  padding-top: 6px;
  border-top: 1.5px solid var(--ink);
  font-size: 1.0625rem;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th[scope='row'] {
  font-weight: 400;
  text-align: start;
}

th[scope='col'] {
  font-size: 0.875rem;
  font-weight: 400;
  color: var(--ink-2);
}

th[scope='col'],
td {
  width: 19%;
  padding: 3px 0;
  text-align: end;
}
</style>
