<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { type Lot, Refused } from '@/api/client'
import AmountStepper from '@/components/AmountStepper.vue'
import HatchSwatch from '@/components/HatchSwatch.vue'
import LotDialog from '@/components/LotDialog.vue'
import MeasureGlyph from '@/components/MeasureGlyph.vue'
import StateNote from '@/components/StateNote.vue'
import { stepOf } from '@/composables/useBench'
import { useMaterials } from '@/composables/useFarm'
import { useSay } from '@/composables/useSay'
import { useSlip } from '@/composables/useSlip'
import { fieldsOf, useStock } from '@/composables/useStock'

const say = useSay()
const { t } = say
const slip = useSlip()
const { lots, error, retry, change, remove, restore } = useStock()
const { byId, hatchOf } = useMaterials()

const editing = ref<Lot | null>(null)
const isOpen = ref(false)
/** Amounts stepped but not answered for yet, by lot. */
const pending = ref(new Map<number, number>())
const timers = new Map<number, ReturnType<typeof setTimeout>>()

const name = (lot: Lot) => say.nameOf(lot.material, lot.label)

const headline = computed(() => {
  if (!lots.value?.length) return t('stock.none')
  const kg = lots.value.reduce((sum, lot) => sum + lot.kg, 0)
  return t('stock.some', { lots: t('stock.lots', lots.value.length), kg: say.whole(kg) })
})

/** What spoils first, if anything does. */
const first = computed(() => {
  const spoiling = (lots.value ?? [])
    .map((lot) => ({ lot, days: byId.value.get(lot.material)?.keeps_days ?? Infinity }))
    .filter(({ lot, days }) => Number.isFinite(days) && lot.amount > 0)
    .sort((a, b) => a.days - b.days)[0]
  if (!spoiling) return ''
  return t('stock.first', { name: name(spoiling.lot).toLowerCase(), days: t('unit.days', spoiling.days) })
})

const rows = computed(() =>
  (lots.value ?? []).map((lot) => {
    const material = byId.value.get(lot.material)
    const { moisture_pct, c_n, density_kg_l } = lot.figures
    const amount = pending.value.get(lot.id) ?? lot.amount
    const water = say.whole(moisture_pct.value)
    return {
      lot,
      name: name(lot),
      book: lot.label && material ? material.name : '',
      amount,
      kg: say.kg(
        lot.unit === 'kg' ? amount : (lot.amount > 0 ? lot.kg / lot.amount : density_kg_l.value) * amount,
      ),
      unit: say.unitWord(lot.unit, lot.measure_id, amount),
      glyph: say.measureOf(lot.measure_id)?.glyph ?? lot.unit,
      figures:
        c_n.value > 0
          ? t('stock.figures', { water, ratio: say.plain(c_n.value) })
          : t('stock.noRatio', { water }),
      isOwn: moisture_pct.origin === 'own' || c_n.origin === 'own',
      keeps: material?.keeps_days ? t('stock.keeps', material.keeps_days) : t('stock.keepsLong'),
      isRefused: material?.must_not_go_in ?? false,
      cautions: material?.cautions.length ?? 0,
    }
  }),
)

function edit(lot: Lot | null) {
  editing.value = lot
  isOpen.value = true
}

/** Written down once the stepping has paused, so that five taps are one change. */
function setAmount(lot: Lot, amount: number) {
  pending.value.set(lot.id, amount)
  clearTimeout(timers.get(lot.id))
  timers.set(
    lot.id,
    setTimeout(() => void write(lot.id), 500),
  )
}

async function write(id: number) {
  const lot = lots.value?.find((one) => one.id === id)
  const amount = pending.value.get(id)
  if (!lot || amount === undefined) return
  try {
    await change.mutateAsync({ id, version: lot.version, lot: { ...fieldsOf(lot), amount } })
  } catch (failure) {
    slip.failed(
      failure instanceof Refused ? (failure.isStale ? t('lot.stale') : failure.message) : t('app.noServer'),
    )
  } finally {
    if (pending.value.get(id) === amount) pending.value.delete(id)
    else void write(id)
  }
}

async function takeOff(lot: Lot) {
  try {
    await remove.mutateAsync(lot.id)
    slip.said({
      text: t('stock.removed', { name: name(lot) }),
      undoLabel: t('app.undo'),
      undo: () => void bringBack(lot),
    })
  } catch (failure) {
    slip.failed(failure instanceof Refused ? failure.message : t('app.noServer'))
  }
}

async function bringBack(lot: Lot) {
  await restore.mutateAsync(lot.id)
  slip.said({ text: t('stock.back', { name: name(lot) }) })
}
</script>

<template>
  <header class="page-head">
    <div>
      <h1>{{ lots ? headline : t('stock.title') }}</h1>
      <p>{{ lots?.length ? first : lots ? t('stock.noneHint') : '' }}</p>
    </div>
    <div class="acts">
      <Button
        v-if="lots?.length"
        as="router-link"
        to="/bench"
        variant="outlined"
        :label="t('stock.toBench')"
      />
      <Button :label="t('stock.add')" @click="edit(null)" />
    </div>
  </header>
  <StateNote v-if="!lots" :error="error" @retry="retry" />
  <ul v-else class="lots">
    <li v-for="row in rows" :key="row.lot.id">
      <HatchSwatch :hatch="hatchOf(row.lot.material)" />
      <div class="named">
        <b>{{ row.name }}</b>
        <span v-if="row.book">{{ row.book }}</span>
        <span v-if="row.isRefused" class="refused">{{ t('stock.refused') }}</span>
      </div>
      <div class="figures">
        <span
          >{{ row.figures }}<template v-if="row.isOwn">, {{ t('origin.own') }}</template></span
        >
        <span>{{ row.keeps }}</span>
      </div>
      <AmountStepper
        :model-value="row.amount"
        :name="row.name"
        :step="stepOf(row.lot)"
        @update:model-value="(amount) => setAmount(row.lot, amount)"
      />
      <div class="unit">
        <MeasureGlyph :glyph="row.glyph" />
        <span
          >{{ row.unit }}<b v-if="row.lot.unit !== 'kg'">{{ row.kg }}</b></span
        >
      </div>
      <div class="row-acts">
        <button
          type="button"
          class="word-act"
          :aria-label="t('stock.editNamed', { name: row.name })"
          @click="edit(row.lot)"
        >
          {{ t('stock.edit') }}
        </button>
        <button
          type="button"
          class="word-act"
          :aria-label="t('stock.removeNamed', { name: row.name })"
          @click="takeOff(row.lot)"
        >
          {{ t('stock.remove') }}
        </button>
      </div>
    </li>
  </ul>
  <LotDialog v-model:open="isOpen" :lot="editing" />
</template>

<style scoped>
.lots {
  margin-top: 18px;
  border-top: 1.5px solid var(--ink);
}

li {
  display: grid;
  grid-template-columns: 44px minmax(0, 1.2fr) minmax(0, 1fr) 132px 132px auto;
  gap: 16px;
  align-items: center;
  min-height: 62px;
  padding: 7px 0;
  border-bottom: 1px solid var(--line);
}

.named b {
  display: block;
  font-weight: 640;
  line-height: 1.2;
  overflow-wrap: anywhere;
}

.named span,
.figures span {
  display: block;
  font-size: 0.875rem;
  line-height: 1.3;
  color: var(--ink-2);
}

.named .refused {
  color: var(--alarm);
  font-weight: 600;
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
  gap: 16px;
}

@media (max-width: 859px) {
  li {
    grid-template-columns: 36px minmax(0, 1fr) 126px;
    gap: 4px 10px;
    padding: 10px 0;
  }

  li :deep(.swatch) {
    width: 36px;
    height: 36px;
  }

  li :deep(.stepper) {
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
  }

  .unit svg {
    display: none;
  }

  .unit span {
    text-align: center;
  }

  li > :deep(.stepper) {
    grid-column: 3;
    grid-row: 1;
  }

  .row-acts {
    grid-column: 2 / -1;
    grid-row: 3;
    gap: 24px;
  }
}
</style>
