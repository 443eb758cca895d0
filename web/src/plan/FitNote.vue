<script setup lang="ts">
import { computed } from 'vue'
import type { HeapAmounts, LayerPlan } from '@/api/client'
import { useSay } from '@/words/useSay'
import { useSlip } from '@/kit/useSlip'
import { sidesOf } from './shape'
import { useDraft } from '@/mix/draft'

/** Both ways between the mix and the heap: other sides, another amount, or several heaps alike. */
const { plan } = defineProps<{ plan: LayerPlan }>()

const say = useSay()
const { t } = say
const store = useDraft()
const slip = useSlip()

const fit = computed(() => plan.fit)
const overflows = computed(() => plan.findings.some(({ code }) => code === 'overflows'))
/** Room that is worth filling. */
const hasRoom = computed(() => fit.value.factor > 1.05)

const sidesSaid = computed(() => {
  const sides = fit.value.sides
  if (!sides) return ''
  return sidesOf(sides)
    .filter(({ side }) => side !== 'columns')
    .map(({ side, value }) => `${t(`layers.sideWord.${side}`)} ${say.length(value)}`)
    .join(', ')
})
const isOther = computed(
  () => fit.value.sides && JSON.stringify(fit.value.sides) !== JSON.stringify(store.draft.heap),
)
const filled = computed(() => say.whole(Math.min(999, 100 / Math.max(fit.value.factor, 1e-3))))
const shareOf = (factor: number) => (factor < 1 ? `${say.whole(factor * 100)} %` : `${say.fine(factor)} ×`)

function done(text: string) {
  slip.said({ text, undoLabel: t('app.undo'), undo: store.undo })
}
function resize(to: HeapAmounts, text: string) {
  store.resize(to)
  done(text)
}
function divide(heaps: number) {
  store.setHeaps(heaps)
  done(heaps > 1 ? t('layers.fit.eachDone', { n: heaps }) : t('layers.fit.oneDone'))
}
function setSides() {
  if (!fit.value.sides) return
  store.setHeap(fit.value.sides)
  done(t('layers.fit.sidesDone', { sides: sidesSaid.value }))
}
</script>

<template>
  <section class="fit" :aria-label="t('layers.fit.title')">
    <div class="gauge" aria-hidden="true">
      <i
        :style="{ width: `${Math.min(100, 100 / Math.max(fit.factor, 1))}%` }"
        :class="{ over: overflows }"
      />
    </div>
    <p>{{ t('layers.fit.fills', { share: filled, capacity: say.heap(plan.capacity_l) }) }}</p>
    <ul v-if="overflows || hasRoom || store.draft.heaps > 1">
      <li v-if="isOther">
        <button type="button" class="word-act" @click="setSides">
          {{ t(overflows ? 'layers.fit.larger' : 'layers.fit.smaller', { sides: sidesSaid }) }}
        </button>
      </li>
      <li v-if="overflows && fit.factor > 0">
        <button
          type="button"
          class="word-act"
          @click="resize(fit.filling, t('layers.fit.done', { share: shareOf(fit.factor) }))"
        >
          {{ t('layers.fit.less', { share: shareOf(fit.factor) }) }}
        </button>
      </li>
      <li v-if="fit.heaps !== store.draft.heaps && fit.heaps > 1 && fit.factor > 0">
        <button type="button" class="word-act" @click="divide(fit.heaps)">
          {{ t('layers.fit.each', { n: fit.heaps, kind: t(`layers.plural.${store.draft.heap.shape}`) }) }}
        </button>
      </li>
      <li v-if="store.draft.heaps > 1">
        <button type="button" class="word-act" @click="divide(1)">{{ t('layers.fit.one') }}</button>
      </li>
      <li v-if="hasRoom">
        <button
          type="button"
          class="word-act"
          @click="resize(fit.filling, t('layers.fit.done', { share: shareOf(fit.factor) }))"
        >
          {{ t('layers.fit.more', { share: shareOf(fit.factor) }) }}
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.fit {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  align-items: center;
}

.gauge {
  width: 160px;
  height: 14px;
  border: 1.5px solid var(--ink);
  background: var(--sheet);
}

.gauge i {
  display: block;
  height: 100%;
  background: var(--ink-2);
}

.gauge .over {
  background: var(--alarm);
}

ul {
  display: flex;
  flex-wrap: wrap;
  gap: 0 20px;
}

@media print {
  .fit {
    display: none;
  }
}
</style>
