<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answered, api } from '@/api/client'
import { key } from '@/api/keys'
import { useSay } from '@/words/useSay'
import { type Choice, limitsOf, type Offer } from './choices'
import { useWants } from './wants'

/** Why a mix is no other: what is used up, what holds the rest back, and what one more of each would bring. */
const { choice, offers } = defineProps<{ choice: Choice; offers: Offer[] }>()

const say = useSay()
const { t } = say
const { wants } = useWants()

const aim = computed(() => choice.aims[0]!)
/** What one more of each is worth is reckoned when somebody asks. */
const isOpen = ref(false)
const worth = useQuery({
  queryKey: key('worth', () => choice.request),
  queryFn: ({ signal }) =>
    answered(api.POST('/api/formulate', { body: { ...choice.request, without_worth: false }, signal })),
  enabled: isOpen,
  staleTime: Infinity,
})
const limits = computed(() => limitsOf(worth.data.value ?? choice.answer, offers, wants.pins))
const nameOf = ({ lot }: Offer) => say.nameWithin(lot.material, lot.label)
/** What is left would only make it larger than was asked. */
const isFull = computed(
  () => limits.value.heldBack.length > 0 && limits.value.heldBack.every(({ by }) => by === 'volume-high'),
)

/** What one more step is worth in the terms of the aim; nothing where that says nothing. */
function worthOf(worth: number): string {
  if (aim.value === 'largest' && worth >= 1) return t('choices.worth.largest', { litres: say.litres(worth) })
  if (aim.value === 'least-water' && worth <= -1)
    return t('choices.worth.least-water', { litres: say.litres(-worth) })
  if (aim.value === 'cheapest' && worth <= -0.005)
    return t('choices.worth.cheapest', { money: say.money(-worth) })
  return ''
}

/** Each lot that would be worth more by itself, then all others in one breath. */
const usedUp = computed(() => {
  const all = limits.value.usedUp.map(({ offer, worth }) => ({ offer, words: worthOf(worth) }))
  const plain = all.filter(({ words }) => !words).map(({ offer }) => nameOf(offer))
  const worthy = all
    .filter(({ words }) => words)
    .map(({ offer, words }) => {
      const one = say.amount(offer.step, offer.lot.unit, offer.lot.measure_id)
      return t('choices.usedUpWorth', { name: nameOf(offer), one, worth: words })
    })
  return plain.length ? [...worthy, t('choices.usedUp', { names: plain.join(', ') })] : worthy
})
const heldBack = computed(() =>
  limits.value.heldBack.map(({ by, offers: held }) =>
    t(`choices.held.${by}`, { names: held.map(nameOf).join(', ') }),
  ),
)
/** Whether no larger, or better one can be, and why. */
const verdict = computed(() => {
  if (aim.value === 'largest' && isFull.value) return t('choices.asLargeAsAsked')
  if (!choice.answer.proven) return t(wants.isCautious ? 'choices.sure' : 'choices.cut')
  return t(aim.value === 'largest' ? 'choices.noLarger' : 'choices.proven')
})
</script>

<template>
  <details @toggle="isOpen = ($event.target as HTMLDetailsElement).open">
    <summary>{{ t(aim === 'largest' ? 'choices.whyNoLarger' : 'choices.whyNoOther') }}</summary>
    <p>{{ verdict }}</p>
    <ul :aria-busy="isOpen && worth.isPending.value">
      <li v-for="words in [...usedUp, ...heldBack]" :key="words">{{ words }}</li>
    </ul>
  </details>
</template>

<style scoped>
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

li {
  margin-top: 6px;
  padding-inline-start: 10px;
  border-inline-start: 2px solid var(--line);
}
</style>
