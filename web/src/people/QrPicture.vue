<script setup lang="ts">
import { computed } from 'vue'

/** A text for a phone's camera, as rows of dark and light squares. Always dark on white, also by night. */
const { rows, label } = defineProps<{ rows: string[]; label: string }>()
const RIM = 4
const across = computed(() => rows.length + 2 * RIM)
/** Each dark square as a small path: one element in all. */
const path = computed(() =>
  rows
    .flatMap((row, y) =>
      [...row].flatMap((one, x) => (one === '1' ? [`M${x + RIM} ${y + RIM}h1v1h-1z`] : [])),
    )
    .join(''),
)
</script>

<template>
  <svg :viewBox="`0 0 ${across} ${across}`" role="img" :aria-label="label" shape-rendering="crispEdges">
    <rect :width="across" :height="across" class="light" />
    <path :d="path" class="dark" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: min(100%, 300px);
  aspect-ratio: 1;
}

.light {
  fill: #fff;
}

.dark {
  fill: #000;
}
</style>
