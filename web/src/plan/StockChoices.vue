<script setup lang="ts">
import type { Lot } from '@/api/client'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import LongList from '@/kit/LongList.vue'
import { useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'

/** Lots to choose from; a tap picks one. */
const {
  lots,
  chosen,
  boxed = false,
} = defineProps<{
  lots: Lot[]
  /** Whether it stands in a box that scrolls. */
  boxed?: boolean
  /** Those that are in already, by id, where a second tap takes them out. */
  chosen?: Set<string | null | undefined>
}>()
const emit = defineEmits<{ pick: [lot: Lot] }>()

const say = useSay()
const { t } = say
const { hatchOf } = useNames()
const idOf = ({ id }: Lot) => id
</script>

<template>
  <LongList v-slot="{ item: lot }" class="choices" :items="lots" :key-of="idOf" :height="57" :boxed="boxed">
    <button
      type="button"
      :disabled="lot.must_not_go_in"
      :aria-pressed="chosen?.has(lot.id)"
      @click="emit('pick', lot)"
    >
      <HatchSwatch :hatch="hatchOf(lot.material)" :size="36" />
      <span>
        <b>{{ say.nameOf(lot.material, lot.label) }}</b>
        <small v-if="lot.must_not_go_in">{{ t('stock.refused') }}</small>
        <small v-else>{{
          t('bench.onHand', { amount: say.amount(lot.amount, lot.unit, lot.measure_id) })
        }}</small>
      </span>
      <span class="plus" aria-hidden="true">{{ chosen?.has(lot.id) ? '✓' : '+' }}</span>
    </button>
  </LongList>
</template>

<style scoped>
.choices {
  border-bottom: 1px solid var(--line);
}

.choices > :deep(li) {
  border-top: 1px solid var(--line);
}

button {
  display: flex;
  align-items: center;
  gap: 12px;
  width: 100%;
  min-height: 56px;
  padding: 6px 0;
  border: 0;
  background: none;
  text-align: start;
  cursor: pointer;
}

button:hover:not(:disabled) {
  background: var(--paper-2);
}

b {
  display: block;
  font-weight: 640;
}

.plus {
  margin-inline-start: auto;
  padding-inline: 12px;
  font-size: 1.375rem;
  font-weight: 600;
  color: var(--act);
}

small {
  font-size: 0.875rem;
  color: var(--ink-2);
}
</style>
