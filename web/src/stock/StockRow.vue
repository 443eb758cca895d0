<script setup lang="ts">
import { computed } from 'vue'
import { type Lot } from '@/api/client'
import AmountStepper from '@/kit/AmountStepper.vue'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import MeasureGlyph from './MeasureGlyph.vue'
import { useLimits } from '@/api/useLimits'
import { useNames } from '@/farm/useFarm'
import { useFigureWords } from '@/mix/useFigureWords'
import { useFreshness } from './useFreshness'
import { useMe } from '@/people/useMe'
import { useSay } from '@/words/useSay'

/** One lot in the stock: what it is, how long it keeps, and its amount to step. */
const { lot, amount } = defineProps<{
  lot: Lot
  /** What stands in its field: the amount stepped last, which may not be written down yet. */
  amount: number
}>()
const emit = defineEmits<{ edit: []; remove: []; step: [amount: number] }>()

const say = useSay()
const { t } = say
const { named, hatchOf } = useNames()
const fresh = useFreshness()
const { stepOf } = useLimits()
const words = useFigureWords()
const { mayWork } = useMe()

const name = computed(() => say.nameOf(lot.material, lot.label))
const book = computed(() => (lot.label ? named.value.get(lot.material)?.name : ''))
const isPast = computed(() => fresh.isPast(lot))

const kg = computed(() => {
  const each = lot.amount > 0 ? lot.kg / lot.amount : lot.figures.density_kg_l.value
  return words.weight(lot.unit === 'kg' ? amount : each * amount, lot.figures)
})
</script>

<template>
  <div class="row" :class="{ past: isPast }">
    <HatchSwatch :hatch="hatchOf(lot.material)" />
    <div class="named">
      <RouterLink :to="`/stock/${lot.id}`">{{ name }}</RouterLink>
      <span v-if="book">{{ book }}</span>
      <span v-if="lot.must_not_go_in" class="alarm">{{ t('stock.refused') }}</span>
    </div>
    <div class="figures">
      <span>{{ words.waterAndRatio(lot.figures) }}</span>
      <span :class="{ alarm: isPast }">{{ fresh.keeps(lot) }}</span>
    </div>
    <b v-if="!mayWork" class="amount">{{ say.count(amount) }}</b>
    <AmountStepper
      v-else
      :model-value="amount"
      :name="name"
      :step="stepOf(lot)"
      :quantity="say.quantityOf(lot.unit)"
      @update:model-value="emit('step', $event)"
    />
    <div class="unit">
      <MeasureGlyph :glyph="say.measureOf(lot.measure_id)?.glyph ?? lot.unit" />
      <span
        >{{ say.unitWord(lot.unit, lot.measure_id, amount) }}<b v-if="lot.unit !== 'kg'">{{ kg }}</b></span
      >
    </div>
    <div class="row-acts">
      <RouterLink
        data-deed="work"
        :to="`/stock/${lot.id}`"
        :aria-label="t('stock.testNamed', { name })"
        class="word-act"
      >
        {{ t('stock.test') }}
      </RouterLink>
      <button
        data-deed="work"
        type="button"
        class="word-act"
        :aria-label="t('stock.editNamed', { name })"
        @click="emit('edit')"
      >
        {{ t('stock.edit') }}
      </button>
      <button
        data-deed="work"
        type="button"
        class="word-act"
        :aria-label="t('stock.removeNamed', { name })"
        @click="emit('remove')"
      >
        {{ t('stock.remove') }}
      </button>
    </div>
    <p v-if="isPast" class="rescue">{{ fresh.rescue(lot) }}</p>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 44px minmax(0, 1.2fr) minmax(0, 1fr) 132px 124px auto;
  gap: 2px 16px;
  align-items: center;
  min-height: 62px;
  padding: 7px 0;
}

.amount {
  text-align: center;
  font-size: 1.125rem;
}

.named a {
  display: block;
  color: var(--ink);
  font-weight: 640;
  line-height: 1.2;
  overflow-wrap: anywhere;
  text-decoration-color: var(--line);
  text-underline-offset: 3px;
}

.named span,
.figures span {
  display: block;
  font-size: 0.875rem;
  line-height: 1.3;
  color: var(--ink-2);
}

.named .alarm,
.figures .alarm {
  color: var(--alarm);
  font-weight: 600;
}

.rescue {
  grid-column: 2 / -1;
  padding: 0 0 4px 10px;
  border-inline-start: 3px solid var(--alarm);
  font-size: 0.9375rem;
}

.unit {
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: 0.9375rem;
  line-height: 1.2;
}

.unit b {
  display: block;
  font-size: 0.875rem;
  font-weight: 400;
  color: var(--ink-2);
}

.row-acts {
  display: flex;
  gap: 14px;
}

.row-acts a {
  display: flex;
  align-items: center;
  text-decoration: none;
}

@media (max-width: 1023px) {
  .row {
    grid-template-columns: 36px minmax(0, 1fr) 126px;
    gap: 4px 10px;
    padding: 10px 0;
  }

  .row :deep(.swatch) {
    width: 36px;
    height: 36px;
  }

  .row > :deep(.stepper) {
    grid-column: 3;
    grid-row: 1;
    width: 126px;
  }

  .figures {
    grid-column: 2;
    grid-row: 2;
  }

  .unit {
    grid-column: 3;
    grid-row: 2;
    justify-content: center;
    text-align: center;
  }

  .unit svg {
    display: none;
  }

  .row-acts {
    grid-column: 2 / -1;
    grid-row: 4;
    gap: 24px;
  }

  .rescue {
    grid-row: 3;
  }
}
</style>
