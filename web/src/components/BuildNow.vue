<script setup lang="ts">
import { computed, toRef } from 'vue'
import type { Heap } from '@/api/client'
import MeasureGlyph from '@/components/MeasureGlyph.vue'
import { useBuildWords } from '@/composables/useBuildWords'

/** The step at hand, large enough to read at arm's length. */
const { heap } = defineProps<{ heap: Heap }>()
const { say, t, items, names, hatches, amount, besideOf, how, cautions } = useBuildWords(toRef(() => heap))

const step = computed(() => heap.build.steps[heap.build.laid]!)
const parts = computed(() => {
  const { portions, role, beside_l } = step.value
  if (!portions.length)
    return [
      {
        key: -1,
        much: beside_l > 0 ? say.litres(beside_l) : '',
        what: besideOf(step.value),
        glyph: 'other',
        hatch: role === 'foundation' ? 'hatch-twigs' : '',
      },
    ]
  return portions.map((portion) => ({
    key: portion.item,
    much: amount(portion),
    what: names.value[portion.item] ?? '',
    glyph: say.measureOf(items.value[portion.item]?.measure_id)?.glyph ?? 'kg',
    hatch: hatches.value[portion.item] ?? '',
  }))
})
const isLoad = computed(() => parts.value.length > 1)
const top = computed(() => t('build.topAt', { height: say.length(step.value.top_cm) }))
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
  <section class="step" :class="{ load: isLoad }" aria-live="polite">
    <template v-for="part in parts" :key="part.key">
      <div class="part">
        <p class="much">{{ part.much }}</p>
        <p class="what"><MeasureGlyph v-if="isLoad" :glyph="part.glyph" />{{ part.what }}</p>
      </div>
      <svg v-if="part.hatch" class="strip" width="100%" :height="isLoad ? 26 : 60" aria-hidden="true">
        <rect width="100%" height="100%" :fill="`url(#${part.hatch})`" />
      </svg>
    </template>
    <p class="how">{{ how(step) }} {{ top }}</p>
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
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 1.5rem;
  font-weight: 660;
  line-height: 1.15;
}

.load .part {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  column-gap: 12px;
  margin-top: 8px;
}

.load .much {
  font-size: 1.75rem;
}

.load .what {
  font-size: 1.25rem;
}

.strip {
  display: block;
  margin-top: 8px;
  border: 1.5px solid var(--ink);
  background: var(--sheet);
}

.load .strip {
  margin-top: 3px;
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
