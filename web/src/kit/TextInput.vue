<script setup lang="ts">
import { useTemplateRef } from 'vue'

/** A line to write in; what is typed counts at every stroke. What is set on it goes to the input itself. */
const { invalid = false } = defineProps<{
  invalid?: boolean
  /** As wide as there is room. */
  fluid?: boolean
}>()
const text = defineModel<string | null>()

const input = useTemplateRef('input')
defineExpose({ focus: () => input.value?.focus() })
</script>

<template>
  <!-- Not by `v-model`, which waits for the end of a word on the keyboards of phones. -->
  <input
    ref="input"
    :value="text"
    type="text"
    class="text-input"
    :class="{ fluid }"
    :aria-invalid="invalid || undefined"
    @input="text = ($event.target as HTMLInputElement).value"
  />
</template>

<style scoped>
.text-input {
  min-height: 44px;
  padding: 10px 12px;
  border: 1px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
}

.text-input:hover {
  border-color: var(--ink);
}

.text-input[aria-invalid] {
  border-color: var(--alarm);
}

.text-input:disabled {
  background: var(--paper-2);
  color: var(--ink-2);
}

.text-input::placeholder {
  color: var(--ink-2);
  opacity: 1;
}

.fluid {
  width: 100%;
}
</style>
