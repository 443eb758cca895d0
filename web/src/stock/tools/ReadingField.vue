<script setup lang="ts">
import { useLimits } from '@/api/useLimits'
import FormField from '@/kit/FormField.vue'
import NumberField from '@/kit/NumberField.vue'
import type { Quantity } from '@/words/units'

/** What a scale or a measure says: a number that may wait to be read, within what the test takes. */
const { id, field, label, within, quantity } = defineProps<{
  id: string
  /** Its name among the readings. */
  field: string
  label: string
  /** By which limits. */
  within: 'weight_kg' | 'sample_g' | 'measure_l'
  quantity: Quantity
}>()
const value = defineModel<number | null>({ required: true })
const limits = useLimits()
</script>

<template>
  <FormField :id="id" :field="field" :label="label">
    <NumberField
      :id="id"
      v-model="value"
      class="full"
      v-bind="limits.of(within)"
      :quantity="quantity"
      empty
    />
  </FormField>
</template>
