<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import ActButton from '@/kit/ActButton.vue'
import { computed, reactive, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answered, api } from '@/api/client'
import { key } from '@/api/keys'
import NumberField from '@/kit/NumberField.vue'
import StateNote from '@/kit/StateNote.vue'
import { useAbout, useMethods } from '@/farm/useFarm'
import { useDraft } from '@/mix/draft'
import { useSay } from '@/words/useSay'
import PlacePlan from './PlacePlan.vue'
import { sidesOf } from './shape'
import { useWants } from './wants'

/** The place first: the corner there is, what heap it holds with room to turn, and by when to build. */
const say = useSay()
const { t } = say
const router = useRouter()
const store = useDraft()
const { wants } = useWants()
const { about } = useAbout()
const { methods, methodName, methodWithin } = useMethods()

const KEPT_AS = 'zymarch-place'
const SIDES = ['length_cm', 'width_cm'] as const
const ground = reactive({ length_cm: 300, width_cm: 200, method: '', needed_by: '', ...kept() })
watch(ground, (now) => {
  try {
    localStorage.setItem(KEPT_AS, JSON.stringify(now))
  } catch {
    // Nothing can be kept here; the corner holds until the page is closed.
  }
})
function kept(): object {
  try {
    return JSON.parse(localStorage.getItem(KEPT_AS) ?? '{}') as object
  } catch {
    return {}
  }
}

const body = computed(() => ({
  length_cm: ground.length_cm,
  width_cm: ground.width_cm,
  method: ground.method || null,
  needed_by: ground.needed_by || null,
}))
const {
  data: answer,
  error,
  refetch: retry,
} = useQuery({
  queryKey: key('place', body),
  queryFn: ({ signal }) => answered(api.POST('/api/place', { body: body.value, signal })),
  placeholderData: keepPreviousData,
  staleTime: Infinity,
})

const sides = (heap: Parameters<typeof sidesOf>[0]) =>
  sidesOf(heap)
    .map(({ side, value }) => `${t(`layers.sideWord.${side}`)} ${say.length(value)}`)
    .join(', ')

const ways = computed(() =>
  (answer.value?.layouts ?? []).map((layout) => ({
    layout,
    title: t(`place.way.${layout.heap.shape === 'box' ? 'bays' : 'heap'}`, {
      n: layout.plots.length,
    }),
    sides: sides(layout.heap),
    takes: t('place.takes', {
      volume: say.heap(layout.volume_l),
      // As it is thrown a heap takes up half as much again and more; the bench says it of a mix.
      amount: say.bulk(layout.volume_l * LOOSE),
    }),
    size: t('place.each', { size: t(`stand.size.${layout.size}`) }),
    free: layout.plots.some((plot) => plot.is_free) ? t('place.free') : t('place.noFree'),
  })),
)
/** Loose stuff settles to about three fifths as a heap is built and wetted. */
const LOOSE = 1 / 0.6

const headline = computed(() => {
  const [first] = ways.value
  if (!first) return t('place.title')
  return t('place.holds', { volume: say.heap(first.layout.volume_l) })
})

/** Takes the heap over, and looks for a mix of its size. */
function take({ layout }: (typeof ways.value)[number]) {
  const each = layout.volume_l
  store.setMethod(ground.method || store.draft.method, layout.heap)
  store.setHeaps(layout.heaps)
  wants.size = [Math.round(each * 0.8), Math.round(each)]
  void router.push('/choices')
}

const days = computed(() =>
  (answer.value?.methods ?? []).map((one) => ({
    ...one,
    name: methodName(one.id),
    words: one.is_too_late
      ? t('place.tooLate')
      : one.is_late
        ? t('place.onlyFast', { day: say.day(one.at_the_latest) })
        : t('place.buildBy', { day: say.day(one.build_by) }),
    takes: t('place.weeks', {
      low: say.whole(one.ready_days[0]! / 7),
      high: say.whole(one.ready_days[1]! / 7),
    }),
  })),
)
</script>

<template>
  <header class="page-head">
    <div aria-live="polite">
      <h1>{{ headline }}</h1>
      <p>{{ t('place.lead') }}</p>
    </div>
  </header>
  <form class="ask" novalidate @submit.prevent>
    <div v-for="side in SIDES" :key="side" class="field">
      <label :for="`place-${side}`">{{ t(`place.${side}`, { unit: say.sign('length') }) }}</label>
      <NumberField
        :id="`place-${side}`"
        :model-value="ground[side]"
        :min="80"
        :max="10000"
        :digits="0"
        quantity="length"
        @update:model-value="(value) => value !== null && (ground[side] = value)"
      />
    </div>
    <div class="field wide">
      <label for="place-method">{{ t('bench.method') }}</label>
      <select id="place-method" v-model="ground.method">
        <option value="">{{ t('place.anyTurned') }}</option>
        <option v-for="one in methods" :key="one.id" :value="one.id">{{ methodName(one.id) }}</option>
      </select>
    </div>
    <div class="field">
      <label for="place-day">{{ t('place.neededBy') }}</label>
      <input id="place-day" v-model="ground.needed_by" type="date" :min="about?.today" />
    </div>
  </form>
  <StateNote v-if="error || !answer" :error="error" @retry="retry" />
  <p v-else-if="!ways.length" class="none">
    {{ ground.method ? t('place.noneFor', { method: methodWithin(ground.method) }) : t('place.none') }}
  </p>
  <div v-if="!error && ways.length" class="ways">
    <article v-for="way in ways" :key="way.title">
      <h2 class="ruled">{{ way.title }}</h2>
      <PlacePlan
        :plots="way.layout.plots"
        :length="Math.max(ground.length_cm, ground.width_cm)"
        :width="Math.min(ground.length_cm, ground.width_cm)"
        :is-heap="way.layout.heap.shape !== 'box'"
      />
      <p>
        <b>{{ way.takes }}</b> {{ way.size }}
      </p>
      <p class="quiet">{{ way.sides }}. {{ way.free }}</p>
      <ActButton
        :label="t('place.find')"
        :aria-label="`${t('place.find')}: ${way.title}`"
        @click="take(way)"
      />
    </article>
  </div>
  <section v-if="days.length" :aria-label="t('place.byWhen')">
    <h2 class="ruled">{{ t('place.byWhen') }}</h2>
    <ul class="days">
      <li v-for="one in days" :key="one.id" :class="{ late: one.is_late }">
        <RouterLink :to="`/methods/${one.id}`">{{ one.name }}</RouterLink>
        <b>{{ one.words }}</b>
        <span class="quiet small">{{ one.takes }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.ask {
  flex-flow: row wrap;
  margin: 16px 0 20px;
}

.ask .wide {
  flex: 0 1 320px;
}

.ask :deep(input) {
  min-height: 44px;
}

.ways {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(290px, 1fr));
  gap: 24px 32px;
  max-width: 1000px;
}

article {
  display: flex;
  flex-direction: column;
  gap: 8px;
}

.none {
  max-width: 620px;
}

section {
  max-width: 1000px;
  margin-top: 26px;
}

.days li {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr) auto;
  gap: 4px 20px;
  align-items: baseline;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}

.late b {
  color: var(--ink-2);
  font-weight: 500;
}

@media (max-width: 859px) {
  .days li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
