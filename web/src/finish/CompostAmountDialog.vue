<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Amount, CompostTold } from '@/api/client'
import FormDialog from '@/kit/FormDialog.vue'
import FormField from '@/kit/FormField.vue'
import TextInput from '@/kit/TextInput.vue'
import { fieldAmong } from '@/kit/refusals'
import { useHalfTyped } from '@/kit/useHalfTyped'
import { useRefusals } from '@/kit/useRefusals'
import { useMeasureList } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import AmountField from './AmountField.vue'
import { begun, whole } from './amount'
import { useFinish } from './useFinish'

/** Compost that lies there is measured anew, spoiled, or was given away. */
const { of } = defineProps<{ of: CompostTold | null }>()
const emit = defineEmits<{ close: [] }>()
const { t } = useSay()
const { measures } = useMeasureList()
const { happened } = useFinish()
const { faults, forget, tried } = useRefusals('measures.stale', fieldAmong('amount', 'note'))

const KINDS = ['counted', 'spoiled', 'given'] as const
const kind = ref<(typeof KINDS)[number]>('counted')
const amount = ref<Partial<Amount>>({})
const note = ref('')
const isPending = ref(false)
const open = computed({
  get: () => of !== null,
  set: (is) => {
    if (!is) emit('close')
  },
})
const { ended } = useHalfTyped(
  () => of !== null,
  () => of?.id ?? '',
  () => {
    forget()
    kind.value = 'counted'
    amount.value = begun(measures.value)
    note.value = ''
  },
)
async function save() {
  const told = whole(amount.value)
  if (!of || !told || isPending.value) return
  isPending.value = true
  const done = await tried(() =>
    happened(of, { kind: kind.value, amount: told, note: note.value.trim() || null }),
  )
  isPending.value = false
  if (!done) return
  ended()
  emit('close')
}
</script>

<template>
  <FormDialog
    v-model:open="open"
    :header="t('compost.countTitle', { name: of?.name ?? '' })"
    :does="t('tend.write')"
    :fault="faults.whole"
    :pending="isPending"
    :disabled="!whole(amount)"
    @save="save"
    @cancel="ended"
  >
    <FormField id="amount-kind" field="kind" :label="t('compost.what')">
      <select id="amount-kind" v-model="kind" class="full">
        <option v-for="one in KINDS" :key="one" :value="one">{{ t(`compost.act.${one}`) }}</option>
      </select>
    </FormField>
    <FormField
      id="amount-amount"
      v-slot="{ invalid, described }"
      field="amount"
      :label="t(`compost.amount.${kind}`)"
    >
      <AmountField
        id="amount-amount"
        v-model="amount"
        :label="t('harvest.unit')"
        :invalid="invalid"
        :described="described"
        autofocus
      />
    </FormField>
    <FormField v-if="kind !== 'counted'" id="amount-note" field="note" :label="t('tend.note')">
      <TextInput id="amount-note" v-model="note" class="full" />
    </FormField>
  </FormDialog>
</template>
