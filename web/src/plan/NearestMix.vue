<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, ref } from 'vue'
import type { Recipe } from '@/api/client'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import { useMeasureList, useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import WorkingDrawer from '@/mix/WorkingDrawer.vue'
import { type Answered, additionRecipe, amountsOf, namesOf, type Offer, recipeOf } from './choices'

/** When nothing fits: the mix that comes nearest, what it misses, and the smallest things that would mend it. */
const { nearest, offers } = defineProps<{ nearest: Answered; offers: Offer[] }>()
const emit = defineEmits<{ take: []; inParts: [] }>()

const say = useSay()
const { t } = say
const { measures } = useMeasureList()
const { hatchOf } = useNames()

const misses = computed(() =>
  nearest.answer.misses.map(({ code, is, edge }) => {
    const words = (value: number) => (code === 'volume-low' ? say.heap(value) : say.whole(value))
    return t(`choices.miss.${code}`, { is: words(is), edge: words(edge) })
  }),
)
const parts = computed(() =>
  amountsOf(nearest.answer, offers)
    .map(
      ({ offer: { lot }, amount }) =>
        `${say.amount(amount, lot.unit, lot.measure_id)} ${say.nameWithin(lot.material, lot.label)}`,
    )
    .join(', '),
)

/** The container that things are fetched in: the one that holds most of those that one person moves. */
const barrow = computed(
  () => measures.value?.find((one) => one.glyph === 'barrow') ?? measures.value?.at(-1) ?? null,
)
function inBarrows({ kg, litres }: { kg: number; litres: number }): string {
  if (!barrow.value) return say.kg(kg)
  return say.amount(Math.ceil((litres / barrow.value.litres) * 2 - 1e-6) / 2, 'measure', barrow.value.id)
}
const missing = computed(() =>
  nearest.answer.missing.slice(0, 6).map((addition) => {
    const { material, kg, litres, and = [] } = addition
    const others = and.map((part) => `${inBarrows(part)} ${say.nameWithin(part.material)}`)
    return {
      material,
      addition,
      hatch: hatchOf(material),
      key: [material, ...and.map((part) => part.material)].join(' '),
      name: say.nameOf(material),
      amount: inBarrows(addition),
      others: others.length ? t('choices.with', { first: '', rest: others.join(', ') }).trim() : '',
      exact: `${say.kg(kg)}, ${say.litres(litres)}`,
    }
  }),
)

/** The mix whose sums are open: the nearest, or one that an addition makes possible. */
const figure = ref<string | null>(null)
const shown = ref<{ recipe: Recipe; names: string[] } | null>(null)
function work(at: number | null) {
  const { answer, request } = nearest
  const addition = at === null ? null : answer.missing[at]
  shown.value = addition
    ? additionRecipe(addition, request, offers, say.nameOf)
    : { recipe: recipeOf(answer, request), names: namesOf(answer, offers, say.nameOf) }
  figure.value = 'c_n'
}
</script>

<template>
  <div class="columns">
    <section :aria-label="t('choices.nearest')">
      <h2 class="ruled">{{ t('choices.nearest') }}</h2>
      <p v-for="miss in misses" :key="miss" class="miss">{{ miss }}</p>
      <p v-if="nearest.answer.fits_in_parts" class="in-parts">
        {{ t('choices.fitsInParts') }}
        <ActButton :label="t('choices.allowParts')" @click="emit('inParts')" />
      </p>
      <p v-if="parts" class="quiet">{{ t('choices.nearestOf', { parts }) }}</p>
      <p v-if="parts" class="acts">
        <ActButton variant="outlined" :label="t('bench.working')" @click="work(null)" />
        <ActButton variant="outlined" :label="t('choices.take')" @click="emit('take')" />
      </p>
    </section>
    <!-- Where parts of a measure do, nothing has to be fetched. -->
    <section v-if="missing.length || !nearest.answer.fits_in_parts" :aria-label="t('choices.missing')">
      <h2 class="ruled">{{ t('choices.missing') }}</h2>
      <p v-if="!missing.length">{{ t('choices.noneAlone') }}</p>
      <ul v-else>
        <li v-for="(one, at) in missing" :key="one.key">
          <HatchSwatch :hatch="one.hatch" :size="32" />
          <span
            ><b>{{ one.amount }}</b> {{ say.within(one.name) }} {{ one.others
            }}<small v-if="one.addition.known">{{ t('choices.known') }}</small></span
          >
          <button
            type="button"
            class="word-act small"
            :aria-label="t('correct.workingNamed', { name: one.name })"
            @click="work(at)"
          >
            {{ one.exact }}
          </button>
        </li>
      </ul>
    </section>
  </div>
  <WorkingDrawer v-if="shown" v-model="figure" :recipe="shown.recipe" :names="shown.names" />
</template>

<style scoped>
.in-parts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  margin-top: 10px;
}

.miss {
  margin-top: 8px;
  padding-inline-start: 10px;
  border-inline-start: 3px solid var(--alarm);
  font-weight: 600;
}

.quiet {
  margin-top: 10px;
}

li {
  display: grid;
  grid-template-columns: 32px minmax(0, 1fr) auto;
  gap: 12px;
  align-items: center;
  min-height: 48px;
  border-bottom: 1px solid var(--line);
}

li small {
  margin-inline-start: 8px;
  color: var(--ink-2);
}

.acts {
  margin-top: 14px;
}
</style>
