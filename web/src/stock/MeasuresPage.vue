<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, ref } from 'vue'
import type { Measure } from '@/api/client'
import MeasureChain from './MeasureChain.vue'
import MeasureDialog from './MeasureDialog.vue'
import MeasureGlyph from './MeasureGlyph.vue'
import StateNote from '@/kit/StateNote.vue'
import WaitsHere from '@/waiting/WaitsHere.vue'
import { useAttempt } from '@/kit/useAttempt'
import { useMeasures } from './useMeasures'
import { useSay } from '@/words/useSay'

/** The person's own containers: what each holds and how that is known. */
const say = useSay()
const { t } = say
const { undoable } = useAttempt()
const { measures, error, retry, remove } = useMeasures()

const editing = ref<Measure | null>(null)
const isOpen = ref(false)

const rows = computed(() =>
  (measures.value ?? []).map((measure) => ({
    measure,
    holds: say.litres(measure.litres),
    how: how(measure),
  })),
)

function how({ way, heaped = 1 }: Measure): string {
  const long = (cm: number) => say.length(cm)
  const words = {
    litres: () => t('measures.how.litres'),
    cylinder: () =>
      way.by === 'cylinder'
        ? t('measures.how.cylinder', { across: long(way.across_cm), height: long(way.height_cm) })
        : '',
    cone: () =>
      way.by === 'cone'
        ? t('measures.how.cone', {
            top: long(way.top_cm),
            bottom: long(way.bottom_cm),
            height: long(way.height_cm),
          })
        : '',
    box: () =>
      way.by === 'box'
        ? t('measures.how.box', {
            length: long(way.length_cm),
            width: long(way.width_cm),
            height: long(way.height_cm),
          })
        : '',
    counted: () =>
      way.by === 'counted'
        ? t('measures.how.counted', { count: say.count(way.count), each: say.litres(way.litres_each) })
        : '',
    measures: () =>
      way.by === 'measures'
        ? t('measures.how.measures', { amount: say.amount(way.count, 'measure', way.measure_id) })
        : '',
  }[way.by]()
  return heaped === 1 ? words : `${words}, ${t('measures.how.heaped', { share: say.whole(heaped * 100) })}`
}

function edit(measure: Measure | null) {
  editing.value = measure
  isOpen.value = true
}

function takeOff(measure: Measure) {
  void undoable(
    t('stock.removed', { name: measure.name }),
    () => remove.mutateAsync(measure),
    { what: 'measures', id: measure.id },
    t('stock.back', { name: measure.name }),
  )
}
</script>

<template>
  <header class="page-head">
    <div>
      <h1>{{ measures ? t('measures.headline', measures.length) : t('measures.title') }}</h1>
      <p>{{ t('measures.lead') }}</p>
    </div>
    <div class="acts">
      <ActButton data-deed="work" :label="t('measures.add')" @click="edit(null)" />
    </div>
  </header>
  <WaitsHere :kinds="['measure-add', 'measure-change', 'measure-remove', 'measure-restore']" />
  <StateNote v-if="!measures" :error="error" @retry="retry" />
  <div v-else class="columns">
    <ul class="ruled-list">
      <li v-for="row in rows" :key="row.measure.id">
        <MeasureGlyph :glyph="row.measure.glyph" :size="34" />
        <div>
          <b>{{ row.measure.name }}</b>
          <span class="quiet small">{{ row.how }}</span>
        </div>
        <span class="holds">{{ row.holds }}</span>
        <div class="row-acts">
          <button
            data-deed="work"
            type="button"
            class="word-act"
            :aria-label="t('stock.editNamed', { name: row.measure.name })"
            @click="edit(row.measure)"
          >
            {{ t('stock.edit') }}
          </button>
          <button
            data-deed="work"
            type="button"
            class="word-act"
            :aria-label="t('stock.removeNamed', { name: row.measure.name })"
            @click="takeOff(row.measure)"
          >
            {{ t('stock.remove') }}
          </button>
        </div>
      </li>
    </ul>
    <MeasureChain />
  </div>
  <MeasureDialog v-model:open="isOpen" :measure="editing" />
</template>

<style scoped>
.ruled-list {
  align-self: start;
}

li {
  display: grid;
  grid-template-columns: 40px minmax(0, 1fr) auto auto;
  gap: 14px;
  align-items: center;
  min-height: 64px;
}

li b,
li .small {
  display: block;
  line-height: 1.3;
}

.holds {
  font-size: 1.25rem;
  font-weight: 640;
  white-space: nowrap;
}

.row-acts {
  display: flex;
  gap: 14px;
}

@media (max-width: 859px) {
  li {
    grid-template-columns: 40px minmax(0, 1fr) auto;
    padding: 6px 0;
  }

  .row-acts {
    grid-column: 2 / -1;
    gap: 24px;
  }
}
</style>
