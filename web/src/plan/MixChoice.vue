<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, ref } from 'vue'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import MixLimits from './MixLimits.vue'
import MixPlace from '@/mix/MixPlace.vue'
import { useNames } from '@/farm/useFarm'
import { useFreshness } from '@/stock/useFreshness'
import { useSay } from '@/words/useSay'
import { useSure } from '@/mix/useSure'
import { amountsOf, type Choice, type Offer } from './choices'
import { windowsOf } from '@/mix/field'

/** One of several good mixes: what goes in, what it comes to, how sure it is, what stays behind and why. */
const { choice, offers, largest, alike } = defineProps<{
  choice: Choice
  offers: Offer[]
  /** The largest of the mixes, to tell this one from; none if this is it. */
  largest: Choice | null
  /** Lots that all of the mixes hold alike, by id: told once, beside them. */
  alike: Set<string>
}>()
const emit = defineEmits<{ take: []; working: [figure: string] }>()

const say = useSay()
const { t } = say
const fresh = useFreshness()
const { hatchOf } = useNames()
const { works } = useSure()

const mix = computed(() => choice.answer.mix)
const title = computed(() => t(`choices.aim.${choice.aims[0]}`))
const also = computed(() => choice.aims.slice(1).map((aim) => t(`choices.also.${aim}`)))

/** What sets it apart from the largest one. */
const apart = computed(() => {
  if (!largest?.answer.mix || !mix.value) return t('choices.tellsLargest')
  const size = largest.answer.mix.heap_volume_l - mix.value.heap_volume_l
  const water = largest.answer.water_l - choice.answer.water_l
  const smaller = size >= 50 ? t('choices.smaller', { size: say.heap(size) }) : t('choices.asLarge')
  if (Math.abs(water) < 6) return t('choices.apart', { smaller })
  const words = say.water(Math.abs(water))
  return t(water > 0 ? 'choices.apartLess' : 'choices.apartMore', { smaller, water: words })
})

const figures = computed(() => {
  if (!mix.value) return []
  const { water_l, cost } = choice.answer
  const all = [
    {
      key: 'heap_volume',
      name: t('bench.size'),
      text: say.heap(mix.value.heap_volume_l),
      note: choice.answer.size ? t(`stand.size.${choice.answer.size}`) : '',
    },
    { key: 'c_n', name: t('bench.ratio'), text: `${say.whole(mix.value.c_n_counted)} : 1` },
    {
      key: 'water_to_add',
      name: t('choices.addWater'),
      text: water_l > 0 ? say.water(water_l) : t('layers.noWater'),
    },
  ]
  return cost == null ? all : [...all, { key: COST, name: t('choices.cost'), text: say.money(cost) }]
})

/** What each priced lot costs: the sum behind the cost. */
const COST = 'cost'
const isCostOpen = ref(false)
const costs = computed(() =>
  amountsOf(choice.answer, offers)
    .filter(({ offer }) => offer.lot.price != null)
    .map(({ offer: { lot }, amount }) => ({
      id: lot.id,
      text: t('choices.costOf', {
        amount: say.amount(amount, lot.unit, lot.measure_id),
        name: say.nameWithin(lot.material, lot.label),
        price: say.money(lot.price ?? 0),
        sum: say.money(amount * (lot.price ?? 0)),
      }),
    })),
)
function open(key: string) {
  if (key === COST) isCostOpen.value = !isCostOpen.value
  else emit('working', key)
}

/** How much more of a lot goes in than in the largest mix; none where this is it. */
function beyond(lot: string, amount: number): number | null {
  if (!largest) return null
  const there = amountsOf(largest.answer, offers).find(({ offer }) => offer.lot.id === lot)
  return Math.round((amount - (there?.amount ?? 0)) * 1e6) / 1e6
}

const rows = computed(() =>
  amountsOf(choice.answer, offers)
    .filter(({ offer }) => !alike.has(offer.lot.id))
    .map(({ offer: { lot }, amount }) => ({
      id: lot.id,
      hatch: hatchOf(lot.material),
      amount: say.amount(amount, lot.unit, lot.measure_id),
      name: say.nameWithin(lot.material, lot.label),
      isAll: amount > lot.amount - 1e-6,
      by: beyond(lot.id, amount),
    }))
    // What tells it apart stands first.
    .sort((one, other) => Number(one.by === 0) - Number(other.by === 0)),
)

/** What stays behind, and of it what spoils soon. */
const rests = computed(() => {
  const used = new Map(amountsOf(choice.answer, offers).map(({ offer, amount }) => [offer.lot.id, amount]))
  return offers
    .map(({ lot }) => ({ lot, rest: lot.amount - (used.get(lot.id) ?? 0) }))
    .filter(({ rest }) => rest > 1e-6)
    .map(({ lot, rest }) => ({
      lot,
      amount: say.amount(Math.round(rest * 100) / 100, lot.unit, lot.measure_id),
      name: say.nameWithin(lot.material, lot.label),
      isUrgent: lot.days_left != null && lot.days_left <= 3,
    }))
})
const spoils = computed(() =>
  rests.value
    .filter(({ isUrgent }) => isUrgent)
    .map(({ lot, amount, name }) => t('choices.stays', { amount, name, keeps: fresh.keeps(lot) })),
)
</script>

<template>
  <article>
    <header class="ruled">
      <h2>{{ title }}</h2>
    </header>
    <p class="quiet small tells">{{ apart }}</p>
    <p v-for="words in also" :key="words" class="quiet small">{{ words }}</p>
    <div v-if="mix" class="figures">
      <MixPlace
        :moisture="mix.moisture_pct"
        :ratio="mix.c_n_counted"
        :outline="choice.answer.confidence?.outline ?? []"
        v-bind="windowsOf(mix)"
      />
      <dl>
        <div v-for="figure in figures" :key="figure.name">
          <dt>{{ figure.name }}</dt>
          <dd>
            <button
              type="button"
              class="sum"
              :aria-expanded="figure.key === COST ? isCostOpen : undefined"
              :aria-label="`${figure.name} ${figure.text}. ${t('bench.working')}`"
              @click="open(figure.key)"
            >
              {{ figure.text }}
            </button>
            <small v-if="'note' in figure && figure.note" class="note">{{ figure.note }}</small>
          </dd>
        </div>
      </dl>
    </div>
    <ul v-if="isCostOpen" class="small">
      <li v-for="cost in costs" :key="cost.id">{{ cost.text }}</li>
      <li v-if="!costs.length">{{ t('choices.costFree') }}</li>
    </ul>
    <p v-if="choice.answer.confidence" class="sure">
      <button type="button" class="word-act" @click="emit('working', 'confidence')">
        {{ works(choice.answer.confidence) }}
      </button>
    </p>
    <ActButton
      :label="t('choices.take')"
      :aria-label="t('choices.takeNamed', { name: title })"
      @click="emit('take')"
    />
    <ul class="parts">
      <li v-for="row in rows" :key="row.id" :class="{ quiet: row.by === 0 }">
        <HatchSwatch :hatch="row.hatch" :size="26" />
        <span
          ><b>{{ row.amount }}</b> {{ row.name
          }}<small v-if="row.by">{{
            t(row.by > 0 ? 'choices.more' : 'choices.less', { n: say.count(Math.abs(row.by)) })
          }}</small
          ><small v-if="row.isAll">{{ t('choices.all') }}</small></span
        >
      </li>
      <li v-if="alike.size" class="quiet">{{ t('choices.andAlike') }}</li>
    </ul>
    <p v-for="words in spoils" :key="words" class="stays">{{ words }}</p>
    <details v-if="rests.length">
      <summary>{{ t('choices.left', rests.length) }}</summary>
      <p>
        <template v-for="(rest, at) in rests" :key="rest.lot.id"
          ><template v-if="at">, </template>{{ rest.amount }} {{ rest.name }}</template
        >
      </p>
    </details>
    <MixLimits :choice="choice" :offers="offers" />
  </article>
</template>

<style scoped>
article {
  display: flex;
  flex-direction: column;
  gap: 8px;
}

h2 {
  min-height: 2.6em;
  font-size: 1.0625rem;
}

.tells {
  min-height: 2.8em;
}

.figures {
  display: flex;
  gap: 14px;
}

dt {
  font-size: 0.875rem;
  line-height: 1.2;
  color: var(--ink-2);
}

dd {
  margin-bottom: 4px;
  font-size: 1.1875rem;
  font-weight: 660;
  line-height: 1.15;
}

.sum {
  padding: 2px 0;
  border: 0;
  background: none;
  font: inherit;
  cursor: pointer;
  text-decoration: underline dotted var(--ink-2) 1px;
  text-underline-offset: 4px;
}

.sure .word-act {
  min-height: 0;
  padding: 0;
}

.parts li {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 3px 0;
  line-height: 1.2;
}

.note {
  display: block;
  margin-inline-start: 0;
  font-size: 0.875rem;
  font-weight: 400;
}

.parts span {
  min-width: 0;
  overflow-wrap: anywhere;
}

small {
  margin-inline-start: 6px;
  color: var(--ink-2);
}

.parts {
  border-top: 1px solid var(--line);
}

.stays {
  padding-inline-start: 10px;
  border-inline-start: 3px solid var(--alarm);
  font-size: 0.9375rem;
  line-height: 1.3;
}

details {
  font-size: 0.9375rem;
  line-height: 1.35;
}

summary {
  min-height: 44px;
  padding: 10px 0;
  color: var(--act);
  font-weight: 600;
  cursor: pointer;
}

details + :deep(details) {
  margin-top: -8px;
}
</style>
