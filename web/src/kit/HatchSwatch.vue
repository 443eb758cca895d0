<script setup lang="ts">
const { hatch, size = 44 } = defineProps<{ hatch: string; size?: number }>()
</script>

<template>
  <svg class="swatch" :width="size" :height="size" aria-hidden="true">
    <rect :width="size" :height="size" :fill="`url(#${hatch})`" />
  </svg>
</template>

<style scoped>
.swatch {
  display: block;
  flex: none;
  border: 1px solid var(--ink);
  background: var(--sheet);
}
</style>
