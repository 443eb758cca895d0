<script setup lang="ts">
import { useSay } from '@/words/useSay'
import type { BenchFigure } from './useFigures'

/** The four figures of the bench in one slim row, for a phone: a tap opens the working. */
const { figures } = defineProps<{ figures: BenchFigure[] }>()
const emit = defineEmits<{ open: [key: string] }>()
const { t } = useSay()

const along = (of: number, [low, high]: readonly [number, number]) =>
  Math.min(100, Math.max(0, ((of - low) / (high - low)) * 100))
const from = ({ aim, scale }: BenchFigure) => along(aim[0], scale)
const wide = ({ aim, scale }: BenchFigure) => Math.max(2, along(aim[1], scale) - along(aim[0], scale))
const here = ({ value, scale }: BenchFigure) => Math.min(97, Math.max(0, along(value, scale) - 1.5))
</script>

<template>
  <div class="strip">
    <button
      v-for="figure in figures"
      :key="figure.key"
      type="button"
      :class="{ off: figure.off }"
      :aria-label="`${figure.label} ${figure.shown} ${figure.unit}, ${figure.words}. ${t('bench.working')}`"
      @click="emit('open', figure.key)"
    >
      <span class="label">{{ figure.short }}</span>
      <span class="value">
        {{ figure.shown }}<small v-if="figure.key !== 'c_n'">{{ figure.unit }}</small>
      </span>
      <svg width="100%" height="10" viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden="true">
        <path d="M0 5H100" class="base" />
        <rect :x="from(figure)" y="2" :width="wide(figure)" height="6" class="aim" />
        <rect :x="here(figure)" y="0" width="3" height="10" class="here" />
      </svg>
    </button>
  </div>
</template>

<style scoped>
.strip {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 12px;
  min-height: 58px;
}

button {
  min-width: 0;
  padding: 0 0 2px;
  border: 0;
  background: none;
  text-align: start;
  cursor: pointer;
}

.label,
.value {
  display: block;
}

.label {
  font-size: 0.8125rem;
  line-height: 1.2;
  color: var(--ink-2);
}

.value {
  font-size: 1.25rem;
  font-weight: 660;
  line-height: 1.25;
  white-space: nowrap;
}

.off .label {
  font-weight: 680;
  color: var(--ink);
}

small {
  margin-inline-start: 2px;
  font-size: 0.875rem;
  font-weight: 500;
}

.base {
  stroke: var(--line);
  stroke-width: 2;
}

.aim {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.2;
  vector-effect: non-scaling-stroke;
}

.here {
  fill: var(--act);
}
</style>
