<script setup lang="ts">
import { useSay } from '@/words/useSay'

/** One row a layer, from the ground up, with what goes on it and how high it then stands. */
export interface LayerRow {
  key: string
  number: number | null
  /** What stands over the first row of a cycle, of the loads alike, or of the cap. */
  head: string
  hatch: string
  name: string
  amount: string
  kg: string
  thickness: string
  top: string
  water: string
  litres: string
}

const { rows, totals } = defineProps<{
  rows: LayerRow[]
  totals: { name: string; hatch: string; amount: string; kg: string }[]
  /** Water of the whole mix. */
  water: string
}>()
const { t } = useSay()
</script>

<template>
  <table>
    <caption class="only-read">
      {{
        t('layers.order')
      }}
    </caption>
    <thead>
      <tr>
        <th scope="col">{{ t('layers.number') }}</th>
        <th scope="col" colspan="2">{{ t('layers.material') }}</th>
        <th scope="col" class="end">{{ t('layers.amount') }}</th>
        <th scope="col" class="end">{{ t('layers.water') }}</th>
        <th scope="col" class="end wide">{{ t('layers.thickness') }}</th>
        <th scope="col" class="end">{{ t('layers.top') }}</th>
      </tr>
    </thead>
    <tbody>
      <template v-for="row in rows" :key="row.key">
        <tr v-if="row.head" class="cycle">
          <th scope="rowgroup" colspan="7">{{ row.head }}</th>
        </tr>
        <tr>
          <td class="number">{{ row.number }}</td>
          <td class="sign">
            <svg width="30" height="22" aria-hidden="true">
              <rect width="30" height="22" :fill="`url(#${row.hatch})`" />
            </svg>
          </td>
          <th scope="row">{{ row.name }}</th>
          <td class="end amount">
            <b>{{ row.amount }}</b><small v-if="row.kg">{{ row.kg }}</small>
          </td>
          <td class="end water">
            {{ row.water }}<small v-if="row.litres">{{ row.litres }}</small>
          </td>
          <td class="end wide">{{ row.thickness }}</td>
          <td class="end top">{{ row.top }}</td>
        </tr>
      </template>
    </tbody>
    <tfoot>
      <tr class="cycle">
        <th scope="rowgroup" colspan="7">{{ t('layers.total') }}</th>
      </tr>
      <tr v-for="total in totals" :key="total.name">
        <td />
        <td class="sign">
          <svg width="30" height="22" aria-hidden="true">
            <rect width="30" height="22" :fill="`url(#${total.hatch})`" />
          </svg>
        </td>
        <th scope="row">{{ total.name }}</th>
        <td class="end amount">
          <b>{{ total.amount }}</b><small v-if="total.kg">{{ total.kg }}</small>
        </td>
        <td colspan="3" />
      </tr>
      <tr>
        <td />
        <td class="sign">
          <svg width="30" height="22" aria-hidden="true">
            <rect width="30" height="22" fill="url(#hatch-water)" />
          </svg>
        </td>
        <th scope="row">{{ t('layers.water') }}</th>
        <td class="end amount">
          <b>{{ water }}</b>
        </td>
        <td colspan="3" />
      </tr>
    </tfoot>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  border-top: 1.5px solid var(--ink);
}

th,
td {
  padding: 7px 6px;
  border-bottom: 1px solid var(--line);
  text-align: start;
  font-weight: 400;
  vertical-align: middle;
}

thead th {
  padding: 5px 6px;
  font-size: 0.875rem;
  color: var(--ink-2);
}

tbody th[scope='row'],
tfoot th[scope='row'] {
  font-weight: 600;
  line-height: 1.2;
}

.cycle th {
  padding-top: 12px;
  font-size: 0.875rem;
  font-weight: 640;
}

.end {
  text-align: end;
  white-space: nowrap;
}

.amount b {
  font-weight: 640;
}

.number {
  width: 36px;
  color: var(--ink-2);
}

.sign {
  width: 42px;
}

.sign svg {
  display: block;
  border: 1px solid var(--ink);
  background: var(--sheet);
}

small {
  display: block;
  font-size: 0.8125rem;
  color: var(--ink-2);
}

@media (max-width: 859px) {
  .wide {
    display: none;
  }

  th,
  td {
    padding: 7px 3px;
    font-size: 0.9375rem;
  }

  .number {
    width: 22px;
  }

  .sign {
    width: 36px;
  }

  /* The amount moves under the name. */
  tbody tr:not(.cycle),
  tfoot tr:not(.cycle) {
    display: grid;
    grid-template-columns: 22px 36px minmax(0, 1fr) 84px 52px;
    align-items: center;
    border-bottom: 1px solid var(--line);
  }

  tbody tr:not(.cycle) > *,
  tfoot tr:not(.cycle) > * {
    border: 0;
    padding-block: 3px;
  }

  .amount {
    grid-area: 2 / 3;
    text-align: start;
  }

  .amount small {
    display: inline;
    margin-inline-start: 8px;
  }

  .water {
    grid-area: 1 / 4 / 3;
  }

  .top {
    grid-area: 1 / 5 / 3;
  }

  /* Its headings stay, in the places of what they head, and in sight. */
  thead tr {
    position: sticky;
    top: 0;
    z-index: 1;
    display: grid;
    grid-template-columns: 58px minmax(0, 1fr) 84px 52px;
    background: var(--paper);
    border-bottom: 1px solid var(--line);
  }

  thead th {
    border: 0;
  }

  thead th:nth-child(3) {
    display: none;
  }
}
</style>
