<script setup lang="ts">
import { computed } from 'vue'
import type { Lot, Material } from '@/api/client'
import OriginNote from './OriginNote.vue'
import RangeBar from '@/mix/RangeBar.vue'
import { useSay } from '@/words/useSay'
import { useUnits } from '@/words/useUnits'
import type { RangeFigure } from '@/mix/range'

/** The figures a lot is reckoned with, each with the book's range and where it came from. */
const { lot, material } = defineProps<{ lot: Lot; material: Material | null }>()

const say = useSay()
const { t } = say
const units = useUnits()

const FIGURES: { key: RangeFigure; test?: string }[] = [
  { key: 'moisture_pct', test: 'drying' },
  { key: 'density_kg_l', test: 'weigh' },
  { key: 'settle', test: 'bucket' },
  { key: 'c_n', test: 'lab' },
  { key: 'n_pct', test: 'lab' },
  { key: 'ash_pct' },
]

function said(key: RangeFigure, value: number): string {
  if (key === 'density_kg_l') return `${say.fine(units.shown(value, 'density'))} ${units.sign('density')}`
  if (key === 'c_n') return `${say.plain(value)} : 1`
  if (key === 'settle') return `${say.whole(value * 100)} %`
  return `${say.exact(Math.round(value * 10) / 10)} %`
}

const rows = computed(() =>
  FIGURES.map(({ key, test }) => {
    const figure = lot.figures[key]
    const book = material?.[key]
    const spread = typeof book === 'number' ? { low: book, typical: book, high: book } : book
    return { key, test, figure, spread, shown: said(key, figure.value) }
  }),
)
</script>

<template>
  <section :aria-label="t('lotPage.figures')">
    <header class="ruled">
      <h2>{{ t('lotPage.figures') }}</h2>
      <span class="quiet small">{{ t('lotPage.barHint') }}</span>
    </header>
    <dl>
      <div v-for="row in rows" :key="row.key">
        <dt>{{ t(`figure.${row.key}`) }}</dt>
        <dd class="value">{{ row.shown }}</dd>
        <dd class="bar">
          <RangeBar
            v-if="row.spread"
            v-bind="row.spread"
            :figure="row.key"
            :value="row.figure.origin === 'book' ? undefined : row.figure.value"
          />
        </dd>
        <dd class="origin">
          <OriginNote :figure="row.figure" />
        </dd>
        <dd class="act">
          <RouterLink
            v-if="row.test"
            :to="`/stock/${lot.id}/test/${row.test}`"
            :aria-label="t('lotPage.measureNamed', { figure: t(`figure.${row.key}`) })"
            class="word-act"
            >{{ t('lotPage.measure') }}</RouterLink
          >
        </dd>
      </div>
    </dl>
  </section>
</template>

<style scoped>
dl > div {
  display: grid;
  grid-template-columns: minmax(0, 8.5rem) 6.6rem minmax(60px, 1fr) minmax(0, 8rem) 4.4rem;
  gap: 12px;
  align-items: center;
  min-height: 48px;
  padding: 2px 0;
  border-bottom: 1px solid var(--line);
}

.value {
  font-weight: 640;
  white-space: nowrap;
}

.act a {
  display: flex;
  align-items: center;
  text-decoration: none;
}

@media (max-width: 859px) {
  dl > div {
    grid-template-columns: minmax(0, 1fr) auto auto;
    gap: 2px 12px;
    padding: 6px 0;
  }

  .bar {
    grid-column: 1;
    grid-row: 2;
  }

  .origin {
    grid-column: 2 / -1;
    grid-row: 2;
    text-align: end;
  }
}
</style>
