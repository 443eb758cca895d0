<script setup lang="ts">
import { computed, toRef } from 'vue'
import CardLayers from './CardLayers.vue'
import CardScales from './CardScales.vue'
import HeapSection from './HeapSection.vue'
import type { BatchFields, BenchAnswer } from '@/api/client'
import BuildCautions from '@/build/BuildCautions.vue'
import { useMaterials, useMethods } from '@/farm/useFarm'
import { dayAfter } from './agenda'
import type { Paper } from './paper'
import { useLayers } from './useLayers'
import { useSay } from '@/words/useSay'

/** The heap on one sheet to take outdoors: drawing, layers, water, turns, scales, cautions, and room to write. */
const { batch, answer, paper } = defineProps<{
  batch: BatchFields
  answer: BenchAnswer
  paper: Paper
}>()

const say = useSay()
const { t } = say
const { byId } = useMaterials()
const { find, methodName } = useMethods()

const plan = computed(() => answer.layers ?? null)
const { hatches, rows, labels } = useLayers(
  plan,
  toRef(() => batch.items),
)
const numbers = computed(() => labels.value.map(({ number }) => ({ number, text: '' })))

const name = computed(() => batch.name || t('card.unnamed'))
const method = computed(() => find(batch.method))
const heaps = computed(() => batch.heaps ?? 1)
const facts = computed(() => {
  const { mix } = answer
  if (!mix || !plan.value) return []
  const water = batch.water_l / heaps.value
  return [
    [t('card.ratio'), `${say.whole(mix.c_n_counted)} : 1`],
    [t('card.moisture'), `${say.whole(mix.moisture_pct)} %`],
    [t('card.size'), say.heap(mix.heap_volume_l / heaps.value)],
    [t('card.water'), `${say.water(water)} (${say.litres(water)})`],
    [t('card.high'), say.length(plan.value.height_cm)],
  ]
})

/** When it is turned: days of the calendar where build day is known, days of its age where not. */
const turns = computed(() => {
  const of = method.value
  if (!of) return [t('card.noMethod')]
  if (!of.turn_every_days || of.first_turn_day == null) return [t(`card.turned.${of.turned}`)]
  const [low = 0, high = 0] = of.turn_every_days
  const first = of.first_turn_day
  const every =
    low === high ? say.plain(low) : t('methods.range', { low: say.plain(low), high: say.plain(high) })
  const day = batch.build_on
    ? t('card.onDay', { day: say.day(dayAfter(batch.build_on, first)), age: first })
    : t('card.atAge', { age: first })
  return [t('card.firstTurn', { day }), t('card.thenEvery', { days: every })]
})
const watering = computed(() =>
  method.value ? t('card.watering', { when: t(`methods.watering.${method.value.water}`) }) : '',
)
const materials = computed(() =>
  batch.items.map((part) => byId.value.get(part.material)).filter((material) => material !== undefined),
)
/** A card for every heap alike: one is shown, all are printed. */
const MOST_CARDS = 30
const copies = computed(() => Math.min(heaps.value, MOST_CARDS))
</script>

<template>
  <div v-if="plan">
    <article v-for="n in copies" :key="n" class="card" :class="paper" :aria-label="t('card.title')">
      <table class="flow" role="presentation">
        <!-- Repeated by the printer on every sheet, so that none is without its heap. -->
        <thead>
          <tr>
            <td class="top">
              <h2>{{ name }}</h2>
              <b v-if="heaps > 1" class="which">{{ t('card.which', { n, of: heaps }) }}</b>
              <p>
                {{ method ? `${methodName(method.id)}.` : '' }}
                <span v-if="batch.build_on">{{ t('card.built', { day: say.day(batch.build_on) }) }}</span>
                <span v-else class="blank">{{ t('card.builtOn') }}</span>
              </p>
            </td>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>
              <dl class="facts">
                <div v-for="[term, said] in facts" :key="term">
                  <dt>{{ term }}</dt>
                  <dd>{{ said }}</dd>
                </div>
              </dl>
              <div class="heap">
                <HeapSection
                  :plan="plan"
                  :heap="batch.heap"
                  :hatches="hatches"
                  :names="numbers"
                  :width="paper === 'a5' ? 220 : 270"
                  :height="paper === 'a5' ? 300 : 340"
                />
                <section class="turns">
                  <h3>{{ t('card.turns') }}</h3>
                  <p v-for="line in turns" :key="line">{{ line }}</p>
                  <p>{{ watering }}</p>
                  <p v-if="plan.vents.length">
                    {{ t(`layers.vent.${plan.vent}`, plan.vents.length).replace(';', '.') }}
                  </p>
                  <CardScales />
                </section>
              </div>
              <CardLayers :rows="rows" />
              <section class="log">
                <h3>{{ t('card.log') }}</h3>
                <table>
                  <thead>
                    <tr>
                      <th
                        v-for="column in ['day', 'core', 'stick', 'squeeze', 'did']"
                        :key="column"
                        scope="col"
                      >
                        {{ t(`card.column.${column}`, { unit: say.sign('temperature') }) }}
                      </th>
                    </tr>
                  </thead>
                  <tbody>
                    <tr v-for="line in 10" :key="line">
                      <td v-for="cell in 5" :key="cell" />
                    </tr>
                  </tbody>
                </table>
                <p class="quiet small">{{ t('card.proof') }}</p>
              </section>
              <div class="cautions">
                <BuildCautions :materials="materials" />
              </div>
            </td>
          </tr>
        </tbody>
      </table>
    </article>
  </div>
</template>

<style scoped>
.card {
  max-width: 720px;
  padding: 24px;
  border: 1.5px solid var(--ink);
  background: var(--sheet);
}

.flow,
.flow > thead,
.flow > tbody,
.flow > thead > tr,
.flow > tbody > tr,
.flow > thead > tr > td,
.flow > tbody > tr > td {
  display: block;
  padding: 0;
  border: 0;
}

.a5 {
  max-width: 560px;
}

.card + .card {
  display: none;
}

.flow > thead > tr > .top {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 4px 20px;
  align-items: baseline;
}

.which {
  font-size: 1.25rem;
}

h2 {
  font-size: 1.75rem;
}

.blank::after {
  content: '';
  display: inline-block;
  width: 110px;
  margin-inline-start: 6px;
  border-bottom: 1px solid var(--ink);
}

.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 24px;
  margin: 10px 0;
  padding: 8px 0;
  border-block: 1.5px solid var(--ink);
}

dt {
  font-size: 0.8125rem;
}

dd {
  margin: 0;
  font-size: 1.25rem;
  font-weight: 680;
}

.heap {
  display: grid;
  grid-template-columns: 270px minmax(0, 1fr);
  gap: 20px;
  align-items: start;
}

.heap > :deep(svg) {
  max-width: 100%;
}

h3 {
  font-size: 1rem;
}

.log {
  margin-top: 14px;
  break-inside: avoid;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th,
td {
  border: 1px solid var(--ink);
}

th {
  padding: 3px 6px;
  font-size: 0.8125rem;
  font-weight: 600;
  text-align: start;
}

.log td {
  height: 26px;
}

.log th:last-child {
  width: 50%;
}

@media (max-width: 859px) {
  .card {
    padding: 12px;
  }

  .heap {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media print {
  .card {
    max-width: none;
    padding: 0;
    border: 0;
  }

  /* A real table on paper, so that its head stands on every sheet; nothing is made smaller than can be read. */
  .card + .card {
    display: block;
  }

  .flow {
    display: table;
    width: 100%;
  }

  .card + .card {
    break-before: page;
  }

  .flow > thead {
    display: table-header-group;
  }

  .flow > tbody {
    display: table-row-group;
  }

  .flow > thead > tr,
  .flow > tbody > tr {
    display: table-row;
  }

  .flow > thead > tr > td,
  .flow > tbody > tr > td {
    display: table-cell;
  }

  .flow > thead > tr > .top {
    display: table-cell;
    padding-bottom: 6px;
    border-bottom: 1.5px solid var(--ink);
  }

  .top h2,
  .top .which,
  .top p {
    display: inline;
    margin-inline-end: 14px;
    font-size: 1.125rem;
  }

  .a5 {
    font-size: 0.875rem;
  }

  .cautions {
    break-before: page;
  }

  .heap {
    grid-template-columns: 270px minmax(0, 1fr);
    break-inside: avoid;
  }

  .a5 .heap {
    grid-template-columns: 220px minmax(0, 1fr);
    gap: 12px;
  }
}
</style>
