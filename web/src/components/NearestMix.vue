<script setup lang="ts">
import { computed } from 'vue'
import type { FormulateAnswer } from '@/api/client'
import HatchSwatch from '@/components/HatchSwatch.vue'
import { useMaterials } from '@/composables/useFarm'
import { useSay } from '@/composables/useSay'
import { useStock } from '@/composables/useStock'
import { amountsOf, type Offer } from '@/figures/choices'

/** When nothing fits: the mix that comes nearest, what it misses, and the smallest things that would mend it. */
const { answer, offers } = defineProps<{ answer: FormulateAnswer; offers: Offer[] }>()

const say = useSay()
const { t } = say
const { measures } = useStock()
const { hatchOf } = useMaterials()

const misses = computed(() =>
  answer.misses.map(({ code, is, edge }) => {
    const words = (value: number) => (code === 'volume-low' ? say.heap(value) : say.whole(value))
    return t(`choices.miss.${code}`, { is: words(is), edge: words(edge) })
  }),
)
const parts = computed(() =>
  amountsOf(answer, offers)
    .map(
      ({ offer: { lot }, amount }) =>
        `${say.amount(amount, lot.unit, lot.measure_id)} ${say.nameOf(lot.material, lot.label).toLowerCase()}`,
    )
    .join(', '),
)

/** The container that things are fetched in: the one that holds most of those that one person moves. */
const barrow = computed(
  () => measures.value?.find((one) => one.glyph === 'barrow') ?? measures.value?.at(-1) ?? null,
)
const missing = computed(() =>
  answer.missing.slice(0, 6).map(({ material, kg, litres }) => {
    const count = barrow.value ? Math.ceil((litres / barrow.value.litres) * 2 - 1e-6) / 2 : 0
    return {
      material,
      hatch: hatchOf(material),
      name: say.nameOf(material),
      amount: barrow.value ? say.amount(count, 'measure', barrow.value.id) : say.kg(kg),
      exact: `${say.kg(kg)}, ${say.litres(litres)}`,
    }
  }),
)
</script>

<template>
  <div class="columns">
    <section :aria-label="t('choices.nearest')">
      <h2 class="ruled">{{ t('choices.nearest') }}</h2>
      <p v-for="miss in misses" :key="miss" class="miss">{{ miss }}</p>
      <p v-if="parts" class="quiet">{{ t('choices.nearestOf', { parts }) }}</p>
    </section>
    <section :aria-label="t('choices.missing')">
      <h2 class="ruled">{{ t('choices.missing') }}</h2>
      <p v-if="!missing.length">{{ t('choices.noneAlone') }}</p>
      <ul v-else>
        <li v-for="one in missing" :key="one.material">
          <HatchSwatch :hatch="one.hatch" :size="32" />
          <span
            ><b>{{ one.amount }}</b> {{ one.name.toLowerCase() }}</span
          >
          <span class="quiet small">{{ one.exact }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
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

li .quiet {
  margin: 0;
}
</style>
