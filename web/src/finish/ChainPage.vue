<script setup lang="ts">
import { computed, toRef } from 'vue'
import ActButton from '@/kit/ActButton.vue'
import StateNote from '@/kit/StateNote.vue'
import { useMethods } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { type ChainOf, useChain } from './useFinish'
import { useFigureWords } from './useFigureWords'
import { useUseWords } from './useUseWords'

/** What went where, on one page that a buyer or an inspector can be given: from a bed back, or from a lot forward. */
const { of, id } = defineProps<{ of: ChainOf; id: string }>()
const say = useSay()
const { t } = say
const { methodName } = useMethods()
const { chain, error, retry } = useChain(
  toRef(() => of),
  toRef(() => id),
)
const words = useUseWords()
const figures = useFigureWords()

const name = computed(() => {
  const told = chain.value
  if (!told) return ''
  return told.material ? say.nameOf(told.material, told.name) : (told.name ?? '')
})
const beds = computed(() => {
  const names = (chain.value?.uses ?? []).map(({ ground_name }) => ground_name ?? t('chain.elsewhere'))
  return [...new Set(names)]
})
const headline = computed(() => {
  if (!chain.value) return t('chain.title')
  if (of === 'lot')
    return beds.value.length
      ? t('chain.lotReached', { name: name.value, n: beds.value.length }, beds.value.length)
      : t('chain.lotNowhere', { name: name.value })
  return t(`chain.${of}Head`, { name: name.value })
})
const day = (at?: string | null) => (at ? say.day(at.slice(0, 10)) : '')
const lotsOf = (heap: string) => (chain.value?.lots ?? []).filter((lot) => lot.heap === heap)
const heat = (heap: NonNullable<typeof chain.value>['heaps'][number]) =>
  heap.held_to.length
    ? heap.held_to.map(({ criterion, status }) =>
        t(`chain.heat.${status}`, { what: t(`hot.criterion.${criterion}`) }),
      )
    : [t('chain.heldToNothing')]
const print = () => window.print()
</script>

<template>
  <StateNote v-if="!chain" :error="error" @retry="retry" />
  <article v-else>
    <header class="page-head">
      <div>
        <h1>{{ headline }}</h1>
        <p>{{ t('chain.asked', { site: chain.site, day: day(chain.asked_at) }) }}</p>
      </div>
      <div class="acts no-print"><ActButton variant="outlined" :label="t('app.print')" @click="print" /></div>
    </header>
    <p v-if="of === 'lot' && beds.length" class="beds">{{ beds.join(', ') }}</p>
    <section :aria-label="t('chain.uses')">
      <h2 class="ruled">{{ t('chain.uses') }}</h2>
      <p v-if="!chain.uses.length" class="quiet">{{ t('chain.noUses') }}</p>
      <ol v-else class="ruled-list">
        <li v-for="one in chain.uses" :key="one.id">
          <p>
            {{ words.line(one) }}
            <span class="quiet small">{{ t('ground.ofCompost', { name: one.compost_name }) }}</span>
          </p>
          <p v-for="kept in one.restrictions" :key="kept.what" class="small">{{ words.kept(kept) }}</p>
        </li>
      </ol>
    </section>
    <section :aria-label="t('chain.composts')">
      <h2 class="ruled">{{ t('chain.composts') }}</h2>
      <p v-if="!chain.composts.length" class="quiet">{{ t('chain.noCompost') }}</p>
      <ul v-else class="ruled-list">
        <li v-for="one in chain.composts" :key="one.id">
          <p>
            <b>{{ one.name }}</b>,
            {{
              t('chain.taken', {
                day: day(one.harvested_at),
                litres: say.litres(Math.round(one.taken_l)),
                left: say.litres(Math.round(one.litres)),
              })
            }}
          </p>
          <p>{{ t(one.shown_hot ? 'compost.shownHot' : 'compost.notShown') }}</p>
          <p class="small">
            {{
              one.holds
                .map(
                  (held) =>
                    `${figures.nameOf(held.figure)} ${figures.valueOf(held.figure, held.value)} (${figures.fromOf(held)})`,
                )
                .join('; ')
            }}
          </p>
        </li>
      </ul>
    </section>
    <section v-for="heap in chain.heaps" :key="heap.id" :aria-label="heap.name">
      <h2 class="ruled">
        {{ t('chain.heap', { name: heap.name }) }}
        <span v-if="heap.is_simulated" class="small quiet">{{ t('trace.simulated') }}</span>
      </h2>
      <p>
        {{
          [
            heap.method ? methodName(heap.method) : '',
            heap.built_at ? t('chain.built', { day: day(heap.built_at) }) : '',
            heap.emptied_at ? t('chain.emptied', { day: day(heap.emptied_at) }) : '',
            heap.stage ? t(`stage.${heap.stage}`) : '',
          ]
            .filter(Boolean)
            .join(', ')
        }}
      </p>
      <p v-for="line in heat(heap)" :key="line">{{ line }}</p>
      <table>
        <caption class="quiet small">
          {{
            t(of === 'lot' ? 'chain.ofTheLot' : 'chain.wentIn')
          }}
        </caption>
        <thead>
          <tr>
            <th scope="col">{{ t('chain.material') }}</th>
            <th scope="col" class="number">{{ say.sign('mass') }}</th>
            <th scope="col">{{ t('chain.gathered') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(lot, place) in lotsOf(heap.id)" :key="place">
            <td>
              <RouterLink v-if="lot.lot && of !== 'lot'" :to="`/chain/lot/${lot.lot}`">{{
                say.nameOf(lot.material, lot.label)
              }}</RouterLink>
              <template v-else>{{ say.nameOf(lot.material, lot.label) }}</template>
            </td>
            <td class="number">{{ say.whole(lot.kg) }}</td>
            <td>
              {{ lot.gathered_on ? day(lot.gathered_on) : lot.lot ? t('chain.notSaid') : t('chain.noLot') }}
            </td>
          </tr>
        </tbody>
      </table>
      <p class="no-print">
        <RouterLink :to="`/heaps/${heap.id}`" class="row-link">{{ t('compost.heap') }}</RouterLink>
      </p>
    </section>
    <p class="quiet small">{{ t('chain.care') }}</p>
  </article>
</template>

<style scoped>
section {
  margin-top: 22px;
}

.beds {
  font-size: 1.25rem;
  font-weight: 640;
}

table {
  width: 100%;
  margin-top: 8px;
  border-collapse: collapse;
}

caption {
  text-align: left;
}

th,
td {
  padding: 7px 10px 7px 0;
  border-bottom: 1px solid var(--line);
  text-align: left;
  overflow-wrap: anywhere;
}

.number {
  text-align: right;
  font-variant-numeric: tabular-nums;
}

.row-link {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}

@media print {
  .no-print {
    display: none;
  }
}

.ruled-list > li {
  padding: 8px 0;
}

.ruled-list p + p {
  margin-top: 3px;
}
</style>
