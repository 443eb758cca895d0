<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, ref } from 'vue'
import type { Lot, LotAct, LotEvent } from '@/api/client'
import AmountStepper from '@/kit/AmountStepper.vue'
import { useAttempt } from '@/kit/useAttempt'
import { useLimits } from '@/api/useLimits'
import { useSay } from '@/words/useSay'

/** What came to a lot and what went from it, and a line to add to it. */
const { lot, events, happened, undo } = defineProps<{
  lot: Lot
  events: LotEvent[]
  happened: (event: { kind: LotAct; amount: number }) => Promise<unknown>
  undo: (event: LotEvent) => Promise<unknown>
}>()

const say = useSay()
const { stepOf } = useLimits()
const { t } = say
const { attempt } = useAttempt()

const amount = ref(1)
const KINDS = ['delivered', 'used', 'spoiled'] as const

const rows = computed(() =>
  events.map((event) => ({
    event,
    day: say.day(event.at),
    change:
      event.delta === 0
        ? ''
        : `${event.delta > 0 ? '+' : '−'}${say.amount(Math.abs(event.delta), event.unit, event.measure_id)}`,
    what: t(`history.${event.kind}`, { taker: event.taker ?? t('history.aBatch') }),
    left: t('history.left', { amount: say.amount(event.amount, event.unit, event.measure_id) }),
  })),
)

const note = (kind: (typeof KINDS)[number]) => attempt(() => happened({ kind, amount: amount.value }))
</script>

<template>
  <section :aria-label="t('history.title')">
    <header class="ruled">
      <h2>{{ t('history.title') }}</h2>
    </header>
    <div class="line" data-deed="work">
      <AmountStepper
        v-model="amount"
        :name="say.nameOf(lot.material, lot.label)"
        :label="t('lot.amount')"
        :step="stepOf({ unit: lot.unit, amount })"
        :quantity="say.quantityOf(lot.unit)"
      />
      <span class="quiet">{{ say.unitWord(lot.unit, lot.measure_id, amount) }}</span>
      <span class="line-acts">
        <ActButton
          v-for="kind in KINDS"
          :key="kind"
          variant="outlined"
          :label="t(`history.do.${kind}`)"
          :disabled="amount <= 0 || (kind !== 'delivered' && amount > lot.amount + 1e-9)"
          @click="note(kind)"
        />
      </span>
    </div>
    <ol>
      <li v-for="row in rows" :key="row.event.id">
        <span class="quiet">{{ row.day }}</span>
        <span
          >{{ row.what
          }}<small v-if="row.event.by" class="by quiet" :title="row.event.device">{{
            row.event.by
          }}</small></span
        >
        <b>{{ row.change }}</b>
        <span class="quiet">{{ row.left }}</span>
        <button
          v-if="row.event.can_be_undone"
          data-deed="work"
          type="button"
          class="word-act"
          :aria-label="t('history.undoNamed', { what: row.what, change: row.change })"
          @click="attempt(() => undo(row.event))"
        >
          {{ t('app.undo') }}
        </button>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.by {
  margin-inline-start: 6px;
}

.line {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  padding: 12px 0;
}

.line-acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

ol {
  border-top: 1px solid var(--line);
}

ol li {
  display: grid;
  grid-template-columns: 7rem minmax(0, 1fr) auto minmax(0, 8.5rem) 3.2rem;
  gap: 12px;
  align-items: center;
  min-height: 46px;
  border-bottom: 1px solid var(--line);
  font-size: 0.9375rem;
}

@media (max-width: 859px) {
  ol li {
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 12px;
    padding: 7px 0;
  }

  ol li > :nth-child(1) {
    grid-row: 2;
  }

  ol li > :nth-child(3),
  ol li > :nth-child(4) {
    text-align: end;
  }

  ol li > button {
    grid-column: 2;
    text-align: end;
  }
}
</style>
