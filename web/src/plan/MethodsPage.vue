<script setup lang="ts">
import { computed } from 'vue'
import MethodDrawing from './MethodDrawing.vue'
import NumberField from '@/kit/NumberField.vue'
import StateNote from '@/kit/StateNote.vue'
import { useMethods } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { useSuit } from './useSuit'
import { useFitness } from './fitness'
import { useLimits } from '@/api/useLimits'

/** All methods, ranked for the mix on the bench, each with what speaks for and against it. */
const say = useSay()
const { t } = say
const { wishes } = useFitness()
const limits = useLimits()
const { methods, methodName, methodWithin } = useMethods()
const { ranked, error, retry, words, hasMix, mix } = useSuit()

const CONTAINERS = ['box', 'ring', 'pile', 'windrow', 'drum', 'lying-drum', 'tower']
const USES = ['beds', 'raw-food', 'pots', 'lawn', 'field', 'trees']
const lead = computed(() =>
  hasMix.value && mix.value
    ? t('methods.leadMix', {
        size: say.heap(mix.value.heap_volume_l),
        ratio: say.whole(mix.value.c_n_counted),
      })
    : t('methods.lead'),
)
const rows = computed(() => {
  const byId = new Map((methods.value ?? []).map((method) => [method.id, method]))
  return (ranked.value ?? []).flatMap((suit) => {
    const method = byId.get(suit.id)
    if (!method) return []
    const points = suit.points.map((point) => ({
      key: point.code,
      weighs: point.weighs,
      sign: point.weighs === 'for' ? '+' : point.weighs === 'against' ? '−' : '×',
      text: words(point, suit.refused),
    }))
    return [{ method, points, isStopped: suit.points.some(({ weighs }) => weighs === 'stops') }]
  })
})
const best = computed(() => rows.value[0])
const headline = computed(() =>
  hasMix.value && best.value && !best.value.isStopped
    ? t('methods.best', { name: methodWithin(best.value.method.id) })
    : t('methods.title'),
)
</script>

<template>
  <header class="page-head">
    <div aria-live="polite">
      <h1>{{ headline }}</h1>
      <p>{{ lead }}</p>
    </div>
  </header>
  <form class="asked" :aria-label="t('methods.asked')" @submit.prevent>
    <div class="field">
      <label for="container">{{ t('methods.container') }}</label>
      <select id="container" v-model="wishes.container">
        <option value="">{{ t('methods.anyContainer') }}</option>
        <option v-for="kind in CONTAINERS" :key="kind" :value="kind">{{ t(`shape.${kind}`) }}</option>
      </select>
    </div>
    <div class="field">
      <label for="used-for">{{ t('methods.usedFor') }}</label>
      <select id="used-for" v-model="wishes.usedFor">
        <option value="">{{ t('use.any') }}</option>
        <option v-for="one in USES" :key="one" :value="one">{{ t(`use.${one}`) }}</option>
      </select>
    </div>
    <div class="field">
      <label for="hours">{{ t('methods.hours') }}</label>
      <NumberField id="hours" v-model="wishes.hours" v-bind="limits.of('hours_a_week')" :digits="1" empty />
    </div>
    <div class="field">
      <label for="weeks">{{ t('methods.weeks') }}</label>
      <NumberField id="weeks" v-model="wishes.weeks" v-bind="limits.of('weeks')" :digits="0" empty />
    </div>
    <label class="check"
      ><input v-model="wishes.wantsHot" type="checkbox" />{{ t('methods.wantsHot') }}</label
    >
    <label class="check"
      ><input v-model="wishes.onlyChlorinated" type="checkbox" />{{ t('methods.onlyChlorinated') }}</label
    >
  </form>
  <StateNote v-if="!ranked" :error="error" @retry="retry" />
  <ol v-else class="methods">
    <li v-for="{ method, points } in rows" :key="method.id">
      <RouterLink :to="`/methods/${method.id}`" class="method">
        <MethodDrawing :method="method" />
        <b>{{ methodName(method.id) }}</b>
      </RouterLink>
      <div>
        <p>{{ t(`methodText.${method.base ?? method.id}.what`) }}</p>
        <ul class="points">
          <li v-for="point in points" :key="point.key" :class="point.weighs">
            <span class="sign" aria-hidden="true">{{ point.sign }}</span>
            <span class="only-read">{{ t(`weighs.${point.weighs}`) }}</span>
            {{ point.text }}
          </li>
        </ul>
      </div>
    </li>
  </ol>
</template>

<style scoped>
.asked {
  flex-flow: row wrap;
  gap: 10px 22px;
  align-items: flex-end;
  margin: 14px 0 18px;
}

.asked :deep(input[type='text']) {
  width: 112px;
}

.asked select {
  width: auto;
}

.methods > li {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  gap: 6px 24px;
  padding: 12px 0;
  border-top: 1.5px solid var(--ink);
}

.method {
  color: var(--ink);
  text-decoration: none;
}

.method b {
  display: block;
  color: var(--act);
  line-height: 1.2;
}

.points {
  margin-top: 8px;
  columns: 2;
  column-gap: 28px;
  font-size: 0.9375rem;
  line-height: 1.35;
}

.points li {
  display: flow-root;
  padding: 2px 0;
  break-inside: avoid;
}

.sign {
  display: inline-block;
  width: 16px;
  font-weight: 700;
}

.stops {
  color: var(--alarm);
}

.stops .sign,
.for .sign {
  color: inherit;
}

@media (max-width: 859px) {
  .methods > li {
    grid-template-columns: 96px minmax(0, 1fr);
    gap: 6px 14px;
  }

  .method b {
    font-size: 0.875rem;
    overflow-wrap: anywhere;
  }

  .points {
    columns: 1;
  }
}
</style>
