<script setup lang="ts">
import type { LayerRow } from './LayerTable.vue'
import { useSay } from '@/words/useSay'

/** The layers as they stand on the card: a box to tick, big amounts, and room for what really went in. */
const { rows } = defineProps<{ rows: LayerRow[] }>()
const { t } = useSay()
</script>

<template>
  <table>
    <caption>
      {{
        t('layers.order')
      }}
    </caption>
    <thead>
      <tr>
        <th scope="col" class="box">
          <span class="only-read">{{ t('card.laid') }}</span>
        </th>
        <th scope="col">{{ t('layers.number') }}</th>
        <th scope="col" colspan="2">{{ t('layers.material') }}</th>
        <th scope="col">{{ t('layers.amount') }}</th>
        <th scope="col">{{ t('layers.water') }}</th>
        <th scope="col">{{ t('layers.top') }}</th>
        <th scope="col" class="room">{{ t('card.wentIn') }}</th>
      </tr>
    </thead>
    <tbody>
      <template v-for="row in rows" :key="row.key">
        <tr v-if="row.head" class="head">
          <th scope="rowgroup" colspan="8">{{ row.head }}</th>
        </tr>
        <tr>
          <td class="box"><i /></td>
          <td>{{ row.number }}</td>
          <td class="sign">
            <svg width="26" height="18" aria-hidden="true">
              <rect width="26" height="18" :fill="`url(#${row.hatch})`" />
            </svg>
          </td>
          <th scope="row">{{ row.name }}</th>
          <td class="much">{{ row.amount }}</td>
          <td>{{ row.water }}</td>
          <td>{{ row.top }}</td>
          <td class="room" />
        </tr>
      </template>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  margin-top: 12px;
  border-collapse: collapse;
}

caption {
  text-align: start;
  font-weight: 640;
}

th,
td {
  padding: 4px 6px 4px 0;
  border-bottom: 1px solid var(--ink);
  text-align: start;
  font-weight: 400;
  vertical-align: middle;
}

thead th {
  font-size: 0.8125rem;
}

tr {
  break-inside: avoid;
}

.head th {
  padding-top: 8px;
  font-size: 0.8125rem;
  font-weight: 640;
}

th[scope='row'] {
  overflow-wrap: anywhere;
  font-weight: 600;
  line-height: 1.15;
}

.box i {
  display: block;
  width: 18px;
  height: 18px;
  border: 1.5px solid var(--ink);
}

.sign svg {
  display: block;
  border: 1px solid var(--ink);
}

td {
  white-space: nowrap;
}

.much {
  padding-inline-end: 12px;
  font-weight: 680;
}

.room {
  width: 14%;
}

@media screen and (max-width: 520px) {
  .room {
    display: none;
  }

  td {
    white-space: normal;
  }
}
</style>
