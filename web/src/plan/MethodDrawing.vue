<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useMethods } from '@/farm/useFarm'
import type { Method } from '@/api/client'
import { outlineOf, personPath } from './method'

/** A method's usual heap in outline, to scale beside a person. */
const { method } = defineProps<{ method: Method }>()
const { t } = useI18n()
const { methodName } = useMethods()
const drawn = computed(() => outlineOf(method))
</script>

<template>
  <svg
    :viewBox="`0 0 ${drawn.width} ${drawn.height}`"
    role="img"
    :aria-label="t('methods.drawing', { name: methodName(method.id) })"
  >
    <path :d="drawn.heap" class="heap" />
    <path v-for="layer in drawn.layers" :key="layer" :d="layer" class="layer" />
    <path v-for="pipe in drawn.pipes" :key="pipe" :d="pipe" class="pipe" />
    <path v-for="part in drawn.holder" :key="part" :d="part" class="holder" />
    <path :d="`M6 ${drawn.height - 8}H${drawn.width - 6}`" class="ground" />
    <g class="person">
      <circle
        :cx="drawn.person.x"
        :cy="drawn.person.head + (drawn.person.foot - drawn.person.head) * 0.08"
        :r="(drawn.person.foot - drawn.person.head) * 0.07"
      />
      <path :d="personPath(drawn.person)" />
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}

.heap {
  fill: var(--paper-2);
  stroke: var(--ink);
  stroke-width: 1.4;
}

.layer {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 0.9;
  stroke-dasharray: 5 3;
}

.pipe {
  fill: none;
  stroke: var(--act);
  stroke-width: 1.6;
  stroke-linecap: round;
}

.holder {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
  stroke-linecap: round;
}

.ground {
  stroke: var(--ink);
  stroke-width: 1.6;
}

.person circle {
  fill: var(--ink-2);
}

.person path {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 2;
  stroke-linecap: round;
}
</style>
