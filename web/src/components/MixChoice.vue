<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import HatchSwatch from '@/components/HatchSwatch.vue'
import MixPlace from '@/components/MixPlace.vue'
import { useMaterials } from '@/composables/useFarm'
import { useFreshness } from '@/composables/useFreshness'
import { useSay } from '@/composables/useSay'
import { amountsOf, type Choice, type Offer } from '@/figures/choices'

/** One of several good mixes: what goes in, what it comes to, what stays behind. */
const { choice, offers } = defineProps<{ choice: Choice; offers: Offer[] }>()
const emit = defineEmits<{ take: [] }>()

const say = useSay()
const { t } = say
const fresh = useFreshness()
const { hatchOf } = useMaterials()

const mix = computed(() => choice.answer.mix)
const title = computed(() => t(`choices.aim.${choice.aims[0]}`))
const also = computed(() => choice.aims.slice(1).map((aim) => t(`choices.also.${aim}`)))

const rows = computed(() =>
  amountsOf(choice.answer, offers).map(({ offer: { lot }, amount }) => ({
    id: lot.id,
    hatch: hatchOf(lot.material),
    amount: say.amount(amount, lot.unit, lot.measure_id),
    name: say.nameOf(lot.material, lot.label).toLowerCase(),
    isAll: amount > lot.amount - 1e-6,
  })),
)

/** What spoils soon and would stay behind. */
const left = computed(() => {
  const used = new Map(amountsOf(choice.answer, offers).map(({ offer, amount }) => [offer.lot.id, amount]))
  return offers
    .map(({ lot }) => ({ lot, rest: lot.amount - (used.get(lot.id) ?? 0) }))
    .filter(({ lot, rest }) => lot.days_left != null && lot.days_left <= 3 && rest > 1e-6)
    .map(({ lot, rest }) =>
      t('choices.stays', {
        amount: say.amount(rest, lot.unit, lot.measure_id),
        name: say.nameOf(lot.material, lot.label).toLowerCase(),
        keeps: fresh.keeps(lot),
      }),
    )
})
</script>

<template>
  <article>
    <header class="ruled">
      <h2>{{ title }}</h2>
    </header>
    <p v-for="words in also" :key="words" class="quiet small">{{ words }}</p>
    <div v-if="mix" class="figures">
      <MixPlace :moisture="mix.moisture_pct" :ratio="mix.c_n" />
      <dl>
        <div>
          <dt>{{ t('bench.size') }}</dt>
          <dd>{{ say.heap(mix.heap_volume_l) }}</dd>
        </div>
        <div>
          <dt>{{ t('bench.ratio') }}</dt>
          <dd>{{ say.whole(mix.c_n) }} : 1</dd>
        </div>
        <div>
          <dt>{{ t('choices.addWater') }}</dt>
          <dd>
            {{ choice.answer.water_l > 0 ? say.water(choice.answer.water_l) : t('layers.noWater') }}
          </dd>
        </div>
      </dl>
    </div>
    <Button
      :label="t('choices.take')"
      :aria-label="t('choices.takeNamed', { name: title })"
      @click="emit('take')"
    />
    <ul class="parts">
      <li v-for="row in rows" :key="row.id">
        <HatchSwatch :hatch="row.hatch" :size="26" />
        <span
          ><b>{{ row.amount }}</b> {{ row.name }}<small v-if="row.isAll">{{ t('choices.all') }}</small></span
        >
      </li>
    </ul>
    <p v-for="words in left" :key="words" class="stays">{{ words }}</p>
    <p class="quiet small">{{ t(choice.answer.proven ? 'choices.proven' : 'choices.cut') }}</p>
  </article>
</template>

<style scoped>
article {
  display: flex;
  flex-direction: column;
  gap: 10px;
}

h2 {
  min-height: 2.6em;
  font-size: 1.0625rem;
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
  margin-bottom: 6px;
  font-size: 1.1875rem;
  font-weight: 660;
  line-height: 1.15;
}

.parts li {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 3px 0;
  line-height: 1.2;
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
</style>
