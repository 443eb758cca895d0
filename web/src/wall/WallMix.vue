<script setup lang="ts">
import { computed, reactive } from 'vue'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import { useBench } from '@/mix/useBench'
import { useDraft } from '@/mix/draft'
import { useFigures } from '@/mix/useFigures'
import { useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { useVerdict } from '@/mix/useVerdict'
import WallFrame from './WallFrame.vue'
import WallGuess from './WallGuess.vue'
import { useSteps } from './useSteps'

/** The mix on the bench before a room: each figure is guessed, then told; last what mends it. */
const emit = defineEmits<{ leave: [] }>()
const say = useSay()
const { t } = say
const store = useDraft()
const { hatchOf } = useNames()
const { answer } = useBench()
const figures = useFigures(answer)
const { headline, reason } = useVerdict(answer)

/** Every figure is asked, then told; then the verdict. */
const total = computed(() => figures.value.length * 2 + 1)
const { at, next, back } = useSteps(total, () => emit('leave'))
const figure = computed(() => figures.value[Math.floor(at.value / 2)])
const isTold = computed(() => at.value % 2 === 1)
const guesses = reactive<Record<string, number | null>>({})

const parts = computed(() =>
  store.draft.items.map((part) => ({
    key: `${part.material} ${part.lot_id}`,
    hatch: hatchOf(part.material),
    words: `${say.amount(part.amount, part.unit, part.measure_id)} ${say.nameWithin(part.material, part.label)}`,
  })),
)
const water = computed(() =>
  store.draft.water_l > 0 ? t('build.water', { amount: say.water(store.draft.water_l) }) : '',
)
const title = computed(() =>
  figure.value ? t(`wall.ask.${figure.value.key}`) : parts.value.length ? headline.value : t('bench.empty'),
)
</script>

<template>
  <WallFrame
    :over="store.draft.saved?.name ?? t('wall.thisMix')"
    :title="title"
    :at="at"
    :total="total"
    @next="next"
    @back="back"
    @leave="emit('leave')"
  >
    <div class="two">
      <ul>
        <li v-for="part in parts" :key="part.key">
          <HatchSwatch :hatch="part.hatch" :size="56" />
          <b>{{ part.words }}</b>
        </li>
        <li v-if="water"><HatchSwatch hatch="hatch-water" :size="56" /> {{ water }}</li>
      </ul>
      <div v-if="figure" :key="figure.key">
        <WallGuess
          :guess="guesses[figure.key] ?? null"
          :truth="figure.shown"
          :unit="figure.unit"
          :is-told="isTold"
          @update:guess="(now) => (guesses[figure!.key] = now)"
        />
        <p v-if="isTold">{{ figure.words }}</p>
      </div>
      <div v-else-if="parts.length">
        <dl>
          <div v-for="one in figures" :key="one.key">
            <dt>{{ one.label }}</dt>
            <dd>
              {{ one.shown }}<small>{{ one.unit }}</small>
            </dd>
          </div>
        </dl>
        <p>{{ reason }}</p>
      </div>
    </div>
  </WallFrame>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 28px 5vw;
}

li {
  display: flex;
  gap: 20px;
  align-items: center;
  padding: 8px 0;
}

dl {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 30px;
  margin: 0 0 16px;
}

dt {
  color: var(--ink-2);
}

dd {
  margin: 0;
  font-size: max(53.4px, 5vw);
  font-weight: 680;
  line-height: 1.1;
}

dd small {
  margin-inline-start: 0.15em;
  font-size: 0.45em;
}

@media (max-width: 859px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
