<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { ComparedHeap, CompareFeature } from '@/api/client'
import ActButton from '@/kit/ActButton.vue'
import StateNote from '@/kit/StateNote.vue'
import { useMethods } from '@/farm/useFarm'
import { useHeapsOfAll } from './useHeapsOfAll'
import { useSay } from '@/words/useSay'
import SmallTrace from './SmallTrace.vue'
import { featureText, FEATURES } from './features'
import { onTheBench } from './onTheBench'
import { useComparison } from './useFinish'

/** Heaps beside each other, of one farm or of several: what differed most, which did best, its recipe in one tap. */
const say = useSay()
const { t } = say
const { methodName } = useMethods()
const { heaps: all } = useHeapsOfAll()
const router = useRouter()

const MOST = 8
const picked = ref<string[] | null>(null)
/** Until somebody chooses: the four that were built last. */
const ids = computed(() => picked.value ?? all.value.slice(0, 4).map(({ id }) => id))
const isIn = (id: string) => ids.value.includes(id)
function pick(id: string) {
  picked.value = isIn(id) ? ids.value.filter((one) => one !== id) : [...ids.value, id].slice(-MOST)
}
const { comparison, error, retry } = useComparison(ids)
const heaps = computed(() => comparison.value?.heaps ?? [])
const best = computed(() => heaps.value.find(({ id }) => id === comparison.value?.best) ?? null)
const value = (heap: ComparedHeap, feature: CompareFeature) =>
  heap.figures.find((one) => one.feature === feature)?.value ?? null
const rows = computed(() =>
  FEATURES.filter((feature) => heaps.value.some((heap) => value(heap, feature) !== null)),
)
const differs = (feature: CompareFeature) => comparison.value?.differed.slice(0, 3).includes(feature)
const headline = computed(() => {
  const first = comparison.value?.differed[0]
  if (heaps.value.length < 2) return t('compare.title')
  return first ? t('compare.head', { what: t(`compare.within.${first}`) }) : t('compare.alike')
})
/** The longest of them, so that all small traces have one scale. */
const days = computed(() => Math.max(1, ...heaps.value.map(({ core }) => core.at(-1)?.[0] ?? 0)))
const recipe = (heap: ComparedHeap) =>
  heap.parts
    .map((part, at) => ({ name: say.nameOf(part.material, part.label), share: heap.shares_pct[at]! }))
    .sort((a, b) => b.share - a.share)
    .map(({ name, share }) => `${name} ${say.whole(share)} %`)
    .join(', ')
async function take(heap: ComparedHeap) {
  onTheBench(heap)
  await router.push('/bench')
}
</script>

<template>
  <header class="page-head">
    <div aria-live="polite">
      <h1>{{ headline }}</h1>
      <p>
        {{ best ? t('compare.best', { name: best.name }) : t('compare.hint') }}
      </p>
    </div>
    <div v-if="best" class="acts" data-deed="work">
      <ActButton :label="t('compare.take', { name: best.name })" @click="take(best)" />
    </div>
  </header>
  <fieldset>
    <legend class="small quiet">{{ t('compare.which', { most: MOST }) }}</legend>
    <button
      v-for="heap in all"
      :key="heap.id"
      type="button"
      :aria-pressed="isIn(heap.id)"
      @click="pick(heap.id)"
    >
      {{ heap.name }} <span v-if="heap.site" class="small">{{ heap.site }}</span>
    </button>
  </fieldset>
  <p v-if="ids.length < 2" class="quiet">{{ t('compare.two') }}</p>
  <StateNote v-else-if="!comparison" :error="error" @retry="retry" />
  <template v-else>
    <ul class="traces" :aria-label="t('compare.traces')">
      <li v-for="heap in heaps" :key="heap.id">
        <h2>
          <RouterLink :to="`/heaps/${heap.id}`">{{ heap.name }}</RouterLink>
        </h2>
        <SmallTrace :core="heap.core" :days="days" :name="heap.name" />
        <p class="small">
          {{
            [heap.method ? methodName(heap.method) : '', t(heap.shown_hot ? 'compare.hot' : 'compare.notHot')]
              .filter(Boolean)
              .join(', ')
          }}
          <span v-if="heap.is_simulated" class="quiet">({{ t('trace.simulated') }})</span>
        </p>
        <p class="small quiet">{{ recipe(heap) }}</p>
      </li>
    </ul>
    <div class="wide">
      <table>
        <thead>
          <tr>
            <th scope="col">{{ t('compare.figure') }}</th>
            <th v-for="heap in heaps" :key="heap.id" scope="col" class="number">{{ heap.name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="feature in rows" :key="feature" :class="{ differs: differs(feature) }">
            <th scope="row">
              {{ t(`compare.feature.${feature}`, { hot: say.of(55, 'temperature') }) }}
              <span v-if="differs(feature)" class="small">{{ t('compare.differs') }}</span>
            </th>
            <td v-for="heap in heaps" :key="heap.id" class="number">
              {{ featureText(say, feature, value(heap, feature)) }}
            </td>
          </tr>
          <tr>
            <th scope="row">{{ t('compare.recipe') }}</th>
            <td v-for="heap in heaps" :key="heap.id" class="number">
              <button
                type="button"
                class="word-act"
                data-deed="work"
                :aria-label="t('compare.take', { name: heap.name })"
                @click="take(heap)"
              >
                {{ t('compare.takeIt') }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="quiet small">{{ t('compare.care') }}</p>
  </template>
</template>

<style scoped>
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 14px 0 20px;
  padding: 0;
  border: 0;
}

legend {
  margin-bottom: 6px;
}

fieldset button {
  min-height: 44px;
  padding: 4px 12px;
  border: 1px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--sheet);
  cursor: pointer;
}

fieldset button[aria-pressed='true'] {
  border-color: var(--act);
  background: var(--tint);
  box-shadow: inset 0 0 0 2px var(--act);
  font-weight: 600;
}

.traces {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 240px), 1fr));
  gap: 18px 24px;
}

.traces h2 {
  font-size: 1.0625rem;
}

.wide {
  margin-top: 20px;
  overflow-x: auto;
}

table {
  border-collapse: collapse;
  min-width: 100%;
}

th,
td {
  padding: 8px 14px 8px 0;
  border-bottom: 1px solid var(--line);
  text-align: left;
  vertical-align: top;
}

tbody th {
  font-weight: 400;
}

.number {
  text-align: right;
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
}

.differs td {
  font-weight: 640;
}

.differs th .small {
  display: block;
  color: var(--act);
  font-weight: 600;
}
</style>
