<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { drawVessel, type VesselSides } from './vessel'

/** A container in outline, its sides to scale, heaped as it is filled. */
const { by, sides, heaped, holds } = defineProps<{
  by: string
  sides: VesselSides
  heaped: number
  holds: string
}>()
const { t } = useI18n()
const drawn = computed(() => drawVessel(by, sides, heaped))
</script>

<template>
  <svg viewBox="0 0 210 190" role="img" :aria-label="t('measures.holds', { amount: holds || '—' })">
    <path :d="drawn.heap" class="heap" />
    <path :d="drawn.outline" class="hatch-thick outline" />
    <path v-if="drawn.marks" :d="drawn.marks" class="hatch-line" />
    <text x="105" y="182" text-anchor="middle">{{ holds }}</text>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 260px;
}

.outline {
  fill: var(--sheet);
}

.heap {
  fill: var(--tint);
  stroke: var(--ink-2);
}

text {
  font-size: 20px;
  font-weight: 660;
  fill: var(--ink);
}
</style>
