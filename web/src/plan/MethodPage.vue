<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import MethodDrawing from './MethodDrawing.vue'
import MethodHeat from './MethodHeat.vue'
import StateNote from '@/kit/StateNote.vue'
import { useAttempt } from '@/kit/useAttempt'
import { useMethods } from '@/farm/useFarm'
import { useOwnMethods } from './useOwnMethods'
import { useSay } from '@/words/useSay'
import { heapFor } from './shape'
import { useDraft } from '@/mix/draft'

/** One method: what it is, when to choose it, how it is done, what it takes and gives. */
const { id } = defineProps<{ id: string }>()

const say = useSay()
const { t } = say
const store = useDraft()
const router = useRouter()
const { methods, find, methodName } = useMethods()
const { remove } = useOwnMethods()
const { undoable } = useAttempt()
const method = computed(() => find(id))
/** Where its words stand: a copy is done as the way it was copied from. */
const book = computed(() => method.value?.base ?? id)

const range = ([low, high]: readonly number[], of: (value: number) => string = say.plain) =>
  low === high ? of(low ?? 0) : t('methods.range', { low: of(low ?? 0), high: of(high ?? 0) })

const facts = computed(() => {
  const of = method.value
  if (!of) return []
  const percent = (value: number) => say.whole(value)
  const turning = of.turn_every_days
    ? t('methods.turnEvery', { first: of.first_turn_day ?? 0, days: range(of.turn_every_days) })
    : t(`methods.turned.${of.turned}`)
  const pattern = of.pattern.map((layer) => t(`pattern.${layer}`)).join(', ')
  const rows: [string, string][] = [
    ['size', range(of.volume_l, say.heap)],
    ['height', range(of.height_cm, say.length)],
    ['shapes', of.shapes.map((shape) => t(`shape.${shape}`)).join(', ')],
    ['ratio', range(of.c_n, say.whole)],
    ['water', `${range(of.moisture_pct, percent)} %`],
    ['air', t('methods.atLeast', { value: `${say.whole(of.free_air_space_min_pct)} %` })],
    ['build', pattern ? `${t(`methods.built.${of.build}`)}: ${pattern}` : t(`methods.built.${of.build}`)],
    ['turning', turning],
    ['watering', t(`methods.watering.${of.water}`)],
    ['look', t('methods.everyDays', { days: range(of.check_days) })],
    ['active', t('methods.weeksLong', { weeks: range(of.active_weeks) })],
  ]
  if (of.unturned_weeks) rows.push(['unturned', t('methods.weeksLong', { weeks: range(of.unturned_weeks) })])
  rows.push(
    ['cure', t('methods.weeksLong', { weeks: range(of.cure_weeks) })],
    ['left', `${range(of.volume_left_pct, percent)} %`],
    ['mass', `${range(of.mass_left_pct, percent)} %`],
    ['kept', `${range(of.n_kept_pct, percent)} %`],
    ['work', t('methods.hoursEach', { hours: range(of.build_h_m3, say.fine) })],
  )
  if (of.turn_h_m3) rows.push(['turnWork', t('methods.hoursEach', { hours: range(of.turn_h_m3, say.fine) })])
  if (of.air_reach_cm) rows.push(['airReach', say.length(of.air_reach_cm)])
  if (of.coarse_min_pct)
    rows.push(['coarse', t('methods.atLeast', { value: `${say.whole(of.coarse_min_pct)} %` })])
  return rows.map(([key, text]) => ({ key, name: t(`methods.fact.${key}`), text }))
})

const STEPS = [1, 2, 3, 4, 5]
async function takeOff() {
  const name = methodName(id)
  await undoable(
    t('methods.removed', { name }),
    async () => {
      await remove.mutateAsync(id)
      await router.push('/methods')
    },
    { what: 'methods', id },
    t('methods.back', { name }),
  )
}

function take() {
  store.setMethod(id, heapFor(method.value, store.draft.heap))
  void router.push('/bench')
}
</script>

<template>
  <p class="crumb">
    <RouterLink to="/methods">{{ t('methods.title') }}</RouterLink>
  </p>
  <StateNote v-if="!methods" :error="null" />
  <h1 v-else-if="!method">{{ t('methods.unknown') }}</h1>
  <template v-else>
    <header class="page-head">
      <div>
        <h1>{{ methodName(id) }}</h1>
        <p>{{ t(`methodText.${book}.what`) }}</p>
        <p v-if="method.base">{{ t('methods.own', { name: methodName(method.base) }) }}</p>
      </div>
      <div class="acts">
        <template v-if="method.base">
          <ActButton data-deed="book" variant="outlined" :label="t('methods.remove')" @click="takeOff" />
          <ActButton
            data-deed="book"
            variant="outlined"
            :to="`/methods/${id}/change`"
            :label="t('methods.change')"
          />
        </template>
        <ActButton
          data-deed="book"
          variant="outlined"
          :to="`/methods/new?copy=${id}`"
          :label="t('methods.copy')"
        />
        <ActButton :label="t('methods.take')" @click="take" />
      </div>
    </header>
    <div class="columns">
      <section :aria-label="t('methods.how')">
        <MethodDrawing :method="method" class="drawing" />
        <h2 class="ruled">{{ t('methods.when') }}</h2>
        <p>{{ t(`methodText.${book}.choose`) }}</p>
        <h2 class="ruled">{{ t('methods.how') }}</h2>
        <ol class="how">
          <li v-for="step in STEPS" :key="step">{{ t(`methodText.${book}.how${step}`) }}</li>
        </ol>
        <h2 class="ruled">{{ t('methods.mind') }}</h2>
        <p>{{ t(`methodText.${book}.mind`) }}</p>
        <p v-if="method.wants_open_water">{{ t('methods.openWater') }}</p>
        <template v-if="method.refuses.length">
          <p class="refuses">{{ t('methods.refuses') }}</p>
          <ul>
            <li v-for="code in method.refuses" :key="code">{{ t(`caution.${code}`) }}</li>
          </ul>
        </template>
        <p class="quiet small">{{ t('layers.care') }}</p>
      </section>
      <section :aria-label="t('methods.facts')">
        <h2 class="ruled">{{ t('methods.heat') }}</h2>
        <MethodHeat :method="method" />
        <h2 class="ruled">{{ t('methods.facts') }}</h2>
        <dl>
          <div v-for="fact in facts" :key="fact.key">
            <dt>{{ fact.name }}</dt>
            <dd>{{ fact.text }}</dd>
          </div>
        </dl>
        <p class="quiet small">{{ t('methods.source') }}</p>
      </section>
    </div>
  </template>
</template>

<style scoped>
.crumb {
  margin-bottom: 4px;
}

.drawing {
  max-width: 420px;
}

h2 {
  margin-top: 18px;
}

.how {
  padding-inline-start: 22px;
  list-style: decimal;
}

.how li {
  padding: 3px 0;
}

section ul {
  padding-inline-start: 20px;
  list-style: disc;
}

.refuses {
  margin-top: 8px;
  font-weight: 600;
}

dl > div {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.2fr);
  gap: 14px;
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
}

dt {
  color: var(--ink-2);
}

.small {
  margin-top: 12px;
}
</style>
