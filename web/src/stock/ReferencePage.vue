<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import TextInput from '@/kit/TextInput.vue'
import { computed, ref } from 'vue'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import RangeBar from '@/mix/RangeBar.vue'
import StateNote from '@/kit/StateNote.vue'
import { useMaterials, useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { search } from './search'

/** Every material, to be found by name or by kind, with its ranges drawn. */
const say = useSay()
const { t } = say
const { materials } = useMaterials()
const { hatchOf } = useNames()

const typed = ref('')
const kind = ref('')
const KINDS = ['brown', 'green', 'manure', 'household', 'bulking', 'mineral', 'starter', 'liquid']

const found = computed(() =>
  search(materials.value, typed.value).filter((material) =>
    kind.value === 'own' ? material.is_own : !kind.value || material.kind === kind.value,
  ),
)
const hasOwn = computed(() => materials.value.some((material) => material.is_own))

const rows = computed(() =>
  found.value.map((material) => ({
    material,
    ratio: material.c_n.typical > 0 ? `${say.plain(material.c_n.typical)} : 1` : '—',
    water: `${say.whole(material.moisture_pct.typical)} %`,
    keeps: material.keeps_days ? t('unit.days', material.keeps_days) : t('fresh.lasts'),
  })),
)
</script>

<template>
  <header class="page-head">
    <div>
      <h1>{{ t('reference.title') }}</h1>
      <p>
        {{ t('reference.lead', { count: materials.length }) }}
        <RouterLink to="/reference/causes">{{ t('cause.all') }}</RouterLink>
      </p>
    </div>
    <div class="acts">
      <ActButton to="/reference/file" variant="outlined" :label="t('reference.file')" />
      <ActButton data-deed="book" to="/reference/new" :label="t('reference.add')" />
    </div>
  </header>
  <div class="finder">
    <label for="find" class="only-read">{{ t('reference.find') }}</label>
    <TextInput id="find" v-model="typed" type="search" :placeholder="t('reference.find')" />
    <label for="of-kind" class="only-read">{{ t('reference.kind') }}</label>
    <select id="of-kind" v-model="kind">
      <option value="">{{ t('reference.anyKind') }}</option>
      <option v-if="hasOwn" value="own">{{ t('reference.ownOnly') }}</option>
      <option v-for="one in KINDS" :key="one" :value="one">{{ t(`kind.${one}`) }}</option>
    </select>
    <span class="quiet" aria-live="polite">{{ t('reference.found', found.length) }}</span>
  </div>
  <StateNote v-if="!materials.length" />
  <p v-else-if="!rows.length">{{ t('lot.noMaterial') }}</p>
  <table v-else>
    <thead>
      <tr>
        <th colspan="2">{{ t('layers.material') }}</th>
        <th colspan="2">{{ t('figure.c_n') }}</th>
        <th colspan="2">{{ t('figure.moisture_pct') }}</th>
        <th class="keeps">{{ t('reference.keeps') }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="{ material, ratio, water, keeps } in rows" :key="material.id">
        <td class="sign"><HatchSwatch :hatch="hatchOf(material.id)" :size="36" /></td>
        <th scope="row">
          <RouterLink :to="`/reference/${material.id}`">{{ material.name }}</RouterLink>
          <small>
            {{ t(`kind.${material.kind}`)
            }}<template v-if="material.is_own">, {{ t('origin.own') }}</template>
            <b v-if="material.must_not_go_in">, {{ t('stock.refused') }}</b>
          </small>
        </th>
        <td class="figure">{{ ratio }}</td>
        <td class="bar"><RangeBar v-if="material.c_n.typical > 0" v-bind="material.c_n" figure="c_n" /></td>
        <td class="figure">{{ water }}</td>
        <td class="bar"><RangeBar v-bind="material.moisture_pct" figure="moisture_pct" /></td>
        <td class="keeps">{{ keeps }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.finder {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  margin: 16px 0 10px;
}

.finder select {
  width: auto;
}

.finder :deep(input) {
  flex: 1 1 260px;
  min-height: 46px;
}

table {
  width: 100%;
  border-collapse: collapse;
  border-top: 1.5px solid var(--ink);
}

thead th {
  padding: 6px 10px 4px 0;
  font-size: 0.875rem;
  font-weight: 400;
  color: var(--ink-2);
  text-align: start;
}

tbody tr {
  border-top: 1px solid var(--line);
}

td,
tbody th {
  padding: 5px 12px 5px 0;
  text-align: start;
  font-weight: 400;
}

.sign {
  width: 48px;
}

tbody th a {
  color: var(--ink);
  font-weight: 640;
  text-decoration-color: var(--line);
  text-underline-offset: 3px;
}

small {
  display: block;
  font-size: 0.875rem;
  color: var(--ink-2);
}

small b {
  color: var(--alarm);
  font-weight: 600;
}

.figure {
  width: 5rem;
  text-align: end;
  white-space: nowrap;
}

.bar {
  width: 16%;
}

.keeps {
  white-space: nowrap;
  font-size: 0.9375rem;
}

@media (max-width: 859px) {
  thead {
    display: none;
  }

  tbody tr {
    display: grid;
    grid-template-columns: 46px minmax(0, 1fr) auto;
    gap: 0 8px;
    padding: 8px 0;
  }

  td,
  tbody th {
    padding: 0;
  }

  .sign {
    grid-row: 1 / 4;
  }

  tbody th {
    grid-column: 2 / -1;
  }

  .bar {
    grid-column: 2;
    width: auto;
  }

  .figure {
    grid-column: 3;
  }

  .figure:nth-of-type(2),
  .bar:nth-of-type(3) {
    grid-row: 2;
  }

  .figure:nth-of-type(4),
  .bar:nth-of-type(5) {
    grid-row: 3;
  }

  .keeps {
    display: none;
  }
}
</style>
