<script setup lang="ts">
import { computed, toRef } from 'vue'
import type { Heap } from '@/api/client'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import MeasureGlyph from '@/stock/MeasureGlyph.vue'
import { isUnreckoned } from './build'
import { useBuildWords } from './useBuildWords'

/** The step at hand, large enough to read at arm's length. */
const { heap } = defineProps<{ heap: Heap }>()
const { say, t, names, hatches, amount, besideOf, how, cautions } = useBuildWords(toRef(() => heap))

const step = computed(() => heap.build.steps[heap.build.laid]!)
const parts = computed(() => {
  const { portions, role, beside_l } = step.value
  if (!portions.length)
    return [
      {
        key: -1,
        much: beside_l > 0 ? say.litres(beside_l) : '',
        what: besideOf(step.value),
        hatch: role === 'foundation' ? 'hatch-twigs' : '',
      },
    ]
  return portions.map((portion) => ({
    key: portion.item,
    much: amount(portion),
    what: names.value[portion.item] ?? '',
    hatch: hatches.value[portion.item] ?? '',
  }))
})
const isLoad = computed(() => parts.value.length > 1)
const top = computed(() =>
  isUnreckoned(heap.build) ? '' : t('build.topAt', { height: say.length(step.value.top_cm) }),
)
const water = computed(() => {
  const litres = step.value.water_l
  if (litres <= 0.05) return ''
  const said = say.water(litres)
  const exact = say.litres(litres)
  return said === exact
    ? t('build.pour', { amount: said })
    : t('build.pourLitres', { amount: said, litres: exact })
})
const minded = computed(() => cautions(step.value))
/** What is in it went in before, and was told then. */
const isTold = computed(() => {
  const before = heap.build.steps.slice(0, heap.build.laid).flatMap(({ portions }) => portions)
  return step.value.portions.every(({ item }) => before.some((one) => one.item === item))
})
</script>

<template>
  <section class="step" aria-live="polite">
    <ul v-if="isLoad" class="load">
      <li v-for="part in parts" :key="part.key">
        <HatchSwatch :hatch="part.hatch" :size="46" />
        <span>
          <b class="much">{{ part.much }}</b>
          <span class="what">{{ part.what }}</span>
        </span>
      </li>
    </ul>
    <template v-for="part in parts" v-else :key="part.key">
      <p class="much">{{ part.much }}</p>
      <p class="what">{{ part.what }}</p>
      <svg v-if="part.hatch" class="strip" width="100%" height="60" aria-hidden="true">
        <rect width="100%" height="100%" :fill="`url(#${part.hatch})`" />
      </svg>
    </template>
    <p class="how">
      {{ how(step) }} <span class="number">{{ top }}</span>
    </p>
    <p v-if="water" class="water"><MeasureGlyph glyph="bucket" :size="28" />{{ water }}</p>
    <component :is="isTold ? 'details' : 'div'" v-if="minded.length" :key="heap.build.laid" class="minded">
      <summary v-if="isTold">{{ t('build.minded') }}</summary>
      <ul>
        <li v-for="line in minded" :key="line">{{ line }}</li>
      </ul>
    </component>
  </section>
</template>

<style scoped>
.much {
  font-size: clamp(2rem, 11vw, 3.25rem);
  font-weight: 700;
  line-height: 1.05;
  letter-spacing: -0.02em;
}

.what {
  font-size: 1.5rem;
  font-weight: 660;
  line-height: 1.15;
}

.load li {
  display: grid;
  grid-template-columns: 46px minmax(0, 1fr);
  gap: 14px;
  align-items: center;
  padding: 7px 0;
  border-bottom: 1px solid var(--line);
}

.load .much {
  display: block;
  font-size: 1.625rem;
}

.load .what {
  font-size: 1.125rem;
}

.strip {
  display: block;
  margin-top: 8px;
  border: 1.5px solid var(--ink);
  background: var(--sheet);
}

.how {
  margin-top: 8px;
  font-size: 1.0625rem;
}

.water {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-top: 8px;
  padding-top: 8px;
  border-top: 1px solid var(--line);
  font-size: 1.3125rem;
  font-weight: 660;
}

.minded {
  margin-top: 8px;
  padding-inline-start: 12px;
  border-inline-start: 3px solid var(--ink-2);
  font-size: 0.9375rem;
}

summary {
  min-height: 32px;
  padding: 4px 0;
  cursor: pointer;
}
</style>
