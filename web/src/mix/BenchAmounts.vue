<script setup lang="ts">
import { computed } from 'vue'
import type { BatchPart, MixItem } from '@/api/client'
import AmountStepper from '@/kit/AmountStepper.vue'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import MeasureGlyph from '@/stock/MeasureGlyph.vue'
import { useLimits } from '@/api/useLimits'
import type { OnBench } from './useBench'
import { useNames } from '@/farm/useFarm'
import { useFigureWords } from './useFigureWords'
import { useSay } from '@/words/useSay'
import { shortOf } from './onHand'
import { useStock } from '@/stock/useStock'
import { useDraft } from './draft'
import { useWants } from '@/plan/wants'

/** What lies on the bench, each lot stepped in its own measure, and the water. */
const { onBench, reckoned } = defineProps<{ onBench: OnBench[]; reckoned: MixItem[] }>()
const selected = defineModel<number | null>('selected', { required: true })

const say = useSay()
const { stepOf } = useLimits()
const { t } = say
const store = useDraft()
const { hatchOf } = useNames()
const words = useFigureWords()
const { wants, pin } = useWants()
const { lots } = useStock()

const rows = computed(() =>
  onBench.map(({ part, lot }, index) => {
    const item = reckoned[index]
    const same = lot && lot.unit === part.unit && lot.measure_id === part.measure_id
    return {
      part,
      step: stepOf(part),
      index,
      name: say.nameOf(part.material, part.label),
      hatch: hatchOf(part.material),
      kg: item ? (part.unit === 'kg' ? say.kg(item.kg) : words.weight(item.kg, item.figures)) : '',
      figures: item ? words.waterAndRatio(item.figures) : '',
      over: overOf(part, item?.kg),
      glyph: say.measureOf(part.measure_id)?.glyph ?? part.unit,
      unit: say.unitWord(part.unit, part.measure_id, part.amount),
      // An amount that is said otherwise than the lot cannot be held against it.
      canPin: !!same,
      isPinned: !!same && lot.id in wants.pins && wants.pins[lot.id]?.kind !== 'out',
    }
  }),
)
function overOf(part: BatchPart, kg?: number): string | null {
  const short = shortOf(part, lots.value, kg)
  if (!short) return null
  if (short.is === 'gone') return t('bench.goneLot')
  const { amount, unit, measure_id } = short.lot
  return t('bench.overStock', { amount: say.amount(amount, unit, measure_id) })
}
type Row = (typeof rows.value)[number]

function setAmount({ index, part, isPinned }: Row, amount: number) {
  store.setAmount(index, amount)
  if (isPinned && part.lot_id) pin(part.lot_id, { kind: 'exact', amount })
}

/** A pinned amount stays when another mix is looked for. */
function togglePin({ part, isPinned }: Row) {
  if (part.lot_id) pin(part.lot_id, isPinned ? null : { kind: 'exact', amount: part.amount })
}

const carried = computed(() => say.bucket())
const waterCount = computed({
  get: () => round(store.draft.water_l / (carried.value?.litres ?? 1)),
  set: (count) => store.setWater(round(count * (carried.value?.litres ?? 1))),
})
const round = (value: number) => Math.round(value * 10_000) / 10_000
</script>

<template>
  <ul>
    <li v-for="row in rows" :key="row.index" :class="{ chosen: row.index === selected }">
      <HatchSwatch :hatch="row.hatch" />
      <div class="named">
        <b>{{ row.name }}</b>
        <span v-if="row.over" class="over">{{ row.over }}</span>
        <template v-else>
          <span>{{ row.kg }}</span>
          <span>{{ row.figures }}</span>
        </template>
        <button
          v-if="row.canPin && (row.isPinned || selected === row.index)"
          type="button"
          class="word-act pin"
          :aria-pressed="row.isPinned"
          :aria-label="t(row.isPinned ? 'bench.unpinNamed' : 'bench.pinNamed', { name: row.name })"
          @click="togglePin(row)"
        >
          {{ t(row.isPinned ? 'bench.pinned' : 'bench.pin') }}
        </button>
      </div>
      <AmountStepper
        :model-value="row.part.amount"
        :name="row.name"
        :step="row.step"
        :quantity="say.quantityOf(row.part.unit)"
        @update:model-value="(amount) => setAmount(row, amount)"
        @picked="selected = row.index"
      />
      <span class="unit"><MeasureGlyph :glyph="row.glyph" />{{ row.unit }}</span>
      <button
        type="button"
        class="off"
        :aria-label="t('bench.takeOff', { name: row.name })"
        @click="store.takeOff(row.index)"
      >
        ×
      </button>
    </li>
    <li>
      <HatchSwatch hatch="hatch-water" />
      <div class="named">
        <b>{{ t('bench.water') }}</b><span>{{ say.litres(store.draft.water_l) }}</span>
      </div>
      <AmountStepper
        v-model="waterCount"
        :name="t('bench.water')"
        :step="carried ? 1 : 10"
        :quantity="carried ? null : 'volume'"
        @picked="selected = null"
      />
      <span class="unit">
        <MeasureGlyph :glyph="carried ? 'bucket' : 'litre'" />{{
          carried ? say.unitWord('measure', carried.id, waterCount) : say.sign('volume')
        }}
      </span>
      <span />
    </li>
  </ul>
</template>

<style scoped>
ul {
  border-top: 1.5px solid var(--ink);
}

li {
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr) 132px 62px 24px;
  gap: 10px;
  align-items: center;
  min-height: 62px;
  padding: 7px 0;
  border-bottom: 1px solid var(--line);
}

li.chosen {
  box-shadow:
    -6px 0 0 var(--paper),
    -9px 0 0 var(--act);
}

.named b {
  display: block;
  font-weight: 640;
  line-height: 1.15;
  overflow-wrap: anywhere;
}

.named span {
  display: block;
  font-size: 0.8125rem;
  line-height: 1.25;
  color: var(--ink-2);
}

.named .over {
  color: var(--alarm);
  font-weight: 600;
}

.named .pin {
  min-height: 32px;
  padding: 0;
  font-size: 0.875rem;
}

.unit {
  display: flex;
  flex-direction: column;
  align-items: center;
  font-size: 0.7813rem;
  line-height: 1.1;
  text-align: center;
  color: var(--ink-2);
}

.off {
  width: 24px;
  height: 44px;
  padding: 0;
  border: 0;
  background: none;
  font-size: 1.25rem;
  color: var(--ink-2);
  cursor: pointer;
}

.off:hover {
  color: var(--alarm);
}

@media (max-width: 859px) {
  li {
    grid-template-columns: 36px minmax(0, 1fr) 126px 32px;
    gap: 8px;
  }

  li :deep(.swatch) {
    width: 36px;
    height: 36px;
  }

  li :deep(.stepper) {
    width: 126px;
  }

  .unit {
    grid-column: 3;
    grid-row: 2;
    flex-direction: row;
    justify-content: center;
    gap: 4px;
    margin-top: -6px;
  }

  .unit :deep(svg) {
    display: none;
  }

  .off {
    grid-column: 4;
    grid-row: 1;
    width: 32px;
  }
}
</style>
