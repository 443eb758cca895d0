<script setup lang="ts">
import { computed, inject } from 'vue'
import { FAULTS } from './useRefusals'

/** A field of a form: its label, what is typed in it, and what was refused of it or is worth knowing. */
const { id, label, field, hint } = defineProps<{
  /** Of what is typed in. */
  id: string
  label: string
  /** By which name the form's refusals are told. */
  field: string
  hint?: string
}>()
const faults = inject(FAULTS, {})
const fault = computed(() => faults[field])
/** What describes the input, for who does not see it. */
const described = computed(() => (fault.value || hint ? `${id}-said` : undefined))
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <slot :invalid="!!fault" :described="described" />
    <p v-if="fault" :id="`${id}-said`" class="fault" role="alert">{{ fault }}</p>
    <p v-else-if="hint" :id="`${id}-said`" class="quiet small">{{ hint }}</p>
  </div>
</template>
