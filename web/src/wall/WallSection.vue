<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import BuildSection from '@/build/BuildSection.vue'
import { useBench } from '@/mix/useBench'
import { useDraft } from '@/mix/draft'
import { useHeight } from '@/kit/useMedia'
import { useLayers } from '@/plan/useLayers'
import { useSay } from '@/words/useSay'
import { useWidth } from '@/kit/useWidth'
import WallFrame from './WallFrame.vue'
import { useSteps } from './useSteps'

/** The heap before a room, a layer at a time from the ground up. */
const emit = defineEmits<{ leave: [] }>()
const say = useSay()
const { t } = say
const store = useDraft()
const { answer } = useBench()
const plan = computed(() => answer.value?.layers ?? null)
const { hatches, bands, nameOf, amountOf } = useLayers(
  plan,
  computed(() => store.draft.items),
)

const total = computed(() => bands.value.length + 1)
const { at, next, back } = useSteps(total, () => emit('leave'))
/** The layer or the load of this step: what goes on, its water, how high it then stands. */
const row = computed(() => {
  const band = at.value > 0 ? bands.value[at.value - 1] : undefined
  if (!band || !plan.value) return null
  const layers = band.layers.map((index) => plan.value!.layers[index]!)
  const litres = layers.reduce((sum, layer) => sum + layer.water_ml, 0) / 1000
  return {
    words: layers.map((layer) => `${amountOf(layer)} ${say.within(nameOf(layer))}`).join(', '),
    water: litres > 0 ? say.water(litres) : t('layers.noWater'),
    top: say.length(band.to),
  }
})
const height = useHeight()
const box = useTemplateRef<HTMLElement>('box')
const width = useWidth(box, 640)

const title = computed(() => {
  if (!plan.value) return t('layers.empty')
  if (row.value) return row.value.words
  return t('wall.howBuilt')
})
</script>

<template>
  <WallFrame
    :over="store.draft.saved?.name ?? t('bench.section')"
    :title="title"
    :at="at"
    :total="total"
    @next="next"
    @back="back"
    @leave="emit('leave')"
  >
    <div v-if="plan" class="two">
      <div ref="box">
        <BuildSection
          :plan="plan"
          :heap="store.draft.heap"
          :hatches="hatches"
          :laid="at - 1"
          :width="width"
          :height="Math.max(260, height - 330)"
        />
      </div>
      <dl v-if="row" aria-live="polite">
        <dt>{{ t('layers.water') }}</dt>
        <dd>{{ row.water }}</dd>
        <dt>{{ t('layers.top') }}</dt>
        <dd>{{ row.top }}</dd>
      </dl>
    </div>
  </WallFrame>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(0, 1fr);
  gap: 28px 5vw;
}

dl {
  margin: 0;
}

dt {
  color: var(--ink-2);
}

dd {
  margin: 0 0 14px;
  font-size: max(53.4px, 5vw);
  font-weight: 680;
  line-height: 1.1;
}

@media (max-width: 859px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
