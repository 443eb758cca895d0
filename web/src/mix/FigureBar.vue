<script setup lang="ts">
import { computed } from 'vue'

/** One figure of the mix: large, on its scale with the aim drawn in, and in words. */
const { value, scale, aim } = defineProps<{
  label: string
  /** Its name on a phone, where the strip shows it. */
  short?: string
  shown: string
  unit: string
  words: string
  note?: string
  /** Name of the act that opens the working. */
  open: string
  value: number
  scale: [number, number]
  aim: [number, number]
  off: boolean
}>()
const emit = defineEmits<{ open: [] }>()

const along = (of: number) => Math.min(100, Math.max(0, ((of - scale[0]) / (scale[1] - scale[0])) * 100))
const from = computed(() => along(aim[0]))
const to = computed(() => along(aim[1]))
const here = computed(() => along(value))
</script>

<template>
  <button
    type="button"
    class="figure"
    :aria-label="`${label} ${shown} ${unit}, ${words}. ${open}`"
    @click="emit('open')"
  >
    <span class="label">{{ label }}</span>
    <span class="value"
      >{{ shown }}<small>{{ unit }}</small></span
    >
    <svg width="100%" height="16" viewBox="0 0 100 16" preserveAspectRatio="none" aria-hidden="true">
      <path d="M0 8H100" class="base" />
      <rect :x="from" y="4" :width="Math.max(1, to - from)" height="8" class="aim" />
      <rect :x="Math.min(98.4, here - 0.8)" y="0" width="1.6" height="16" class="here" />
    </svg>
    <span class="words" :class="{ off }">{{ words }}</span>
    <span v-if="note" class="note">{{ note }}</span>
  </button>
</template>

<style scoped>
.figure {
  display: flex;
  flex-direction: column;
  min-width: 0;
  padding: 0;
  border: 0;
  background: none;
  text-align: start;
  cursor: pointer;
}

.label {
  font-size: 0.875rem;
  color: var(--ink-2);
}

.value {
  font-size: 2.125rem;
  font-weight: 660;
  line-height: 1.1;
}

.value small {
  margin-inline-start: 4px;
  font-size: 1.0625rem;
  font-weight: 500;
}

.words {
  margin-top: 2px;
  font-size: 0.9375rem;
  line-height: 1.25;
}

.words.off {
  font-weight: 640;
}

.note {
  font-size: 0.8125rem;
  color: var(--ink-2);
}

.figure:hover .label {
  color: var(--act);
  text-decoration: underline;
  text-underline-offset: 3px;
}

.base {
  stroke: var(--line);
  stroke-width: 2;
}

.aim {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.3;
  vector-effect: non-scaling-stroke;
}

.here {
  fill: var(--act);
}

@media (max-width: 859px) {
  .value {
    font-size: 1.75rem;
  }

  .words {
    font-size: 0.875rem;
  }
}
</style>
