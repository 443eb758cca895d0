<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import MixChoice from './MixChoice.vue'
import NearestMix from './NearestMix.vue'
import StateNote from '@/kit/StateNote.vue'
import WantsForm from './WantsForm.vue'
import WorkingDrawer from '@/mix/WorkingDrawer.vue'
import { useChoices } from './useChoices'
import { useWants } from './wants'
import { useMeasureList, useMethods } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { alikeIn, type Answered, amountsOf, namesOf, recipeOf } from './choices'
import { AIM } from '@/mix/field'
import { useDraft } from '@/mix/draft'

/** The best mixes that the stock allows, side by side; one tap takes one to the bench. */
const say = useSay()
const { t } = say
const store = useDraft()
const router = useRouter()
const { measures } = useMeasureList()
const { methodWithin } = useMethods()

const { wants } = useWants()
const { method, lots, offers, choices, nearest, isReady, isWhole, error, retry } = useChoices()

const headline = computed(() => {
  if (lots.value?.length === 0) return t('stock.none')
  // Counted once all of them are there.
  if (!isWhole.value) return t('bench.find')
  if (!choices.value.length)
    return t(nearest.value?.answer.fits_in_parts ? 'choices.noneWhole' : 'choices.none')
  const size = Math.max(...choices.value.map(({ answer }) => answer.mix?.heap_volume_l ?? 0))
  return t('choices.some', { size: say.heap(size) }, choices.value.length)
})
const lead = computed(() => {
  const [low, high] = method.value?.c_n ?? AIM.ratio
  const [dry, wet] = method.value?.moisture_pct ?? AIM.moisture
  const windows = { low: say.whole(low!), high: say.whole(high!), dry: say.whole(dry!), wet: say.whole(wet!) }
  return method.value
    ? t('choices.leadFor', { ...windows, name: methodWithin(method.value.id) })
    : t('choices.lead', windows)
})
const largest = computed(() => choices.value.find(({ aims }) => aims.includes('largest')) ?? null)

/** What does not tell them apart is said once. */
const alike = computed(() => (isWhole.value ? alikeIn(choices.value, offers.value) : []))
const alikeIds = computed(() => new Set(alike.value.map(({ offer }) => offer.lot.id)))
const alikeWords = computed(() =>
  alike.value
    .map(
      ({ offer: { lot }, amount }) =>
        `${say.amount(amount, lot.unit, lot.measure_id)} ${say.nameWithin(lot.material, lot.label)}`,
    )
    .join(', '),
)

function take({ answer }: Pick<Answered, 'answer'>) {
  store.lay(
    amountsOf(answer, offers.value).map(({ offer, amount }) => ({ lot: offer.lot, amount })),
    measures.value ?? [],
    answer.water_l,
  )
  void router.push('/bench')
}

/** The small doses that the mixes were held to. */
const held = computed(() => (choices.value[0] ?? nearest.value)?.answer.caps.filter(({ dose }) => dose) ?? [])

type Sums = Pick<Answered, 'answer' | 'request'>

/** The mix whose working is open, and the figure. */
const figure = ref<string | null>(null)
const shown = ref<Sums | null>(null)
/** What is still to be added is asked of the mix without its water. */
const recipe = computed(() => {
  if (!shown.value) return null
  const whole = recipeOf(shown.value.answer, shown.value.request)
  return figure.value === 'water_to_add' ? { ...whole, water_l: 0 } : whole
})
function work(answered: Sums, of: string) {
  shown.value = answered
  figure.value = of
}
</script>

<template>
  <p class="crumb">
    <RouterLink to="/bench">{{ t('nav.bench') }}</RouterLink>
  </p>
  <header class="page-head">
    <div aria-live="polite">
      <h1>{{ headline }}</h1>
      <p>
        {{ lead }} <RouterLink to="/rules">{{ t('rules.title') }}</RouterLink>
      </p>
    </div>
  </header>
  <WantsForm v-if="offers.length" :offers="offers" :held="held" />
  <StateNote v-if="error || (!isReady && lots?.length !== 0)" :error="error" @retry="retry" />
  <p v-else-if="lots?.length === 0">
    <RouterLink to="/stock">{{ t('bench.toStock') }}</RouterLink>
  </p>
  <NearestMix
    v-else-if="nearest"
    :nearest="nearest"
    :offers="offers"
    @take="take(nearest)"
    @in-parts="wants.step = 'any'"
  />
  <p v-if="!nearest && alike.length" class="alike">
    <b>{{ t('choices.inAll', choices.length) }}</b> {{ alikeWords }}
  </p>
  <div v-if="!nearest && choices.length" class="choices" :aria-busy="!isWhole">
    <MixChoice
      v-for="choice in choices"
      :key="choice.aims[0]"
      :choice="choice"
      :offers="offers"
      :largest="choice === largest ? null : largest"
      :alike="alikeIds"
      @take="take(choice)"
      @working="(of) => work(choice, of)"
    />
  </div>
  <p v-if="choices.length" class="quiet small foot">{{ t('choices.foot') }}</p>
  <WorkingDrawer
    v-if="shown && recipe"
    v-model="figure"
    :recipe="recipe"
    :names="namesOf(shown.answer, offers, say.nameOf)"
  />
</template>

<style scoped>
.crumb {
  margin-bottom: 4px;
}

.choices {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(250px, 1fr));
  gap: 26px 28px;
}

.alike {
  margin: 4px 0 14px;
}

.foot {
  margin-top: 18px;
}
</style>
