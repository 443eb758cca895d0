<script setup lang="ts">
import Dialog from 'primevue/dialog'
import type { Lot } from '@/api/client'
import HatchSwatch from '@/components/HatchSwatch.vue'
import { useMaterials } from '@/composables/useFarm'
import { useSay } from '@/composables/useSay'

/** The lots that are not on the bench yet; a tap puts one on. */
const { lots } = defineProps<{ lots: Lot[] }>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ pick: [lot: Lot] }>()

const say = useSay()
const { t } = say
const { hatchOf, byId } = useMaterials()

const isRefused = (lot: Lot) => byId.value.get(lot.material)?.must_not_go_in ?? false
</script>

<template>
  <Dialog
    v-model:visible="open"
    modal
    dismissable-mask
    class="stock-picker"
    :header="t('bench.addFromStock')"
    :close-button-props="{
      'aria-label': t('app.close'),
      severity: 'secondary',
      variant: 'text',
      rounded: true,
    }"
  >
    <p v-if="lots.length === 0">
      {{ t('bench.allIn') }}. <RouterLink to="/stock">{{ t('bench.toStock') }}</RouterLink>
    </p>
    <ul v-else>
      <li v-for="lot in lots" :key="lot.id">
        <button type="button" :disabled="isRefused(lot)" @click="emit('pick', lot)">
          <HatchSwatch :hatch="hatchOf(lot.material)" :size="36" />
          <span>
            <b>{{ say.nameOf(lot.material, lot.label) }}</b>
            <small v-if="isRefused(lot)">{{ t('stock.refused') }}</small>
            <small v-else>{{
              t('bench.onHand', { amount: say.amount(lot.amount, lot.unit, lot.measure_id) })
            }}</small>
          </span>
        </button>
      </li>
    </ul>
  </Dialog>
</template>

<style>
.stock-picker.p-dialog {
  width: min(480px, calc(100vw - 24px));
}
</style>

<style scoped>
li {
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

small {
  font-size: 0.875rem;
  color: var(--ink-2);
}
</style>
