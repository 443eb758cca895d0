<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import MixChoice from '@/components/MixChoice.vue'
import NearestMix from '@/components/NearestMix.vue'
import NumberField from '@/components/NumberField.vue'
import StateNote from '@/components/StateNote.vue'
import { useChoices } from '@/composables/useChoices'
import { useSay } from '@/composables/useSay'
import { useStock } from '@/composables/useStock'
import { amountsOf, type Choice } from '@/figures/choices'
import { useDraft } from '@/stores/draft'

/** The best mixes that the stock allows, side by side; one tap takes one to the bench. */
const say = useSay()
const { t } = say
const store = useDraft()
const router = useRouter()
const { measures } = useStock()

/** A hot heap wants a cubic metre; one that a person can turn is seldom above two and a half. */
const least = ref<number | null>(1000)
const most = ref<number | null>(2500)
const isWhole = ref(true)
const size = computed<[number, number]>(() => {
  const low = least.value ?? 0
  return [low, Math.max(low, most.value ?? 20_000, 1)]
})

const { lots, offers, choices, nearest, isReady, error, retry } = useChoices(size, isWhole)

const headline = computed(() => {
  if (lots.value?.length === 0) return t('bench.emptyStock')
  if (!isReady.value) return t('choices.title')
  if (!choices.value.length) return t('choices.none')
  const largest = Math.max(...choices.value.map(({ answer }) => answer.mix?.heap_volume_l ?? 0))
  return t('choices.some', { size: say.heap(largest) }, choices.value.length)
})

function take({ answer }: Choice) {
  store.lay(
    amountsOf(answer, offers.value).map(({ offer, amount }) => ({ lot: offer.lot, amount })),
    measures.value ?? [],
    answer.water_l,
  )
  void router.push('/bench')
}
</script>

<template>
  <p class="crumb">
    <RouterLink to="/bench">{{ t('nav.bench') }}</RouterLink>
  </p>
  <header class="page-head">
    <div aria-live="polite">
      <h1>{{ headline }}</h1>
      <p>{{ t('choices.lead') }}</p>
    </div>
  </header>
  <div class="asked">
    <div class="field">
      <label for="least">{{ t('choices.least', { unit: say.sign('heap') }) }}</label>
      <NumberField id="least" v-model="least" :max="20000" quantity="heap" :step="0.1" empty />
    </div>
    <div class="field">
      <label for="most">{{ t('choices.most', { unit: say.sign('heap') }) }}</label>
      <NumberField id="most" v-model="most" :max="20000" quantity="heap" :step="0.1" empty />
    </div>
    <label class="check">
      <input v-model="isWhole" type="checkbox" />
      <span>{{ t('choices.whole') }}</span>
    </label>
  </div>
  <StateNote v-if="error || (!isReady && lots?.length !== 0)" :error="error" @retry="retry" />
  <p v-else-if="lots?.length === 0">
    <RouterLink to="/stock">{{ t('bench.toStock') }}</RouterLink>
  </p>
  <NearestMix v-else-if="nearest" :answer="nearest" :offers="offers" />
  <div v-else class="choices">
    <MixChoice
      v-for="choice in choices"
      :key="choice.aims[0]"
      :choice="choice"
      :offers="offers"
      @take="take(choice)"
    />
  </div>
  <p v-if="choices.length" class="quiet small foot">{{ t('choices.foot') }}</p>
</template>

<style scoped>
.crumb {
  margin-bottom: 4px;
}

.asked {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 22px;
  align-items: flex-end;
  margin: 14px 0 18px;
}

.asked :deep(input[type='text']) {
  width: 120px;
}

.choices {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(250px, 1fr));
  gap: 26px 28px;
}

.foot {
  margin-top: 18px;
}
</style>
