<script setup lang="ts">
/** Own signs for the person's containers, in the line weight of the hatches. */
const { glyph, size = 24 } = defineProps<{ glyph: string; size?: number }>()

const PATHS: Record<string, string> = {
  bucket: 'M5 7h14l-2 13H7zM5 7q7-6 14 0',
  barrow: 'M2 8h14l-3 8H6zM16 8l6-2M8 21.4a2.4 2.4 0 1 0 0-4.8a2.4 2.4 0 0 0 0 4.8z',
  sack: 'M8 4l1 3q-5 4-4 10q1 4 7 4t7-4q1-6-4-10l1-3zM9 7h6',
  cloth: 'M3 9q9-7 18 0q1 8-9 9T3 9zM3 9L1 6M21 9l2-3',
  pannier: 'M3 8h7v8q-3.5 4-7 0zM14 8h7v8q-3.5 4-7 0zM6 8q6-6 12 0',
  basket: 'M4 9h16l-2 10H6zM5 12h14M5.5 15.5h13M8 9q4-8 8 0',
  cart: 'M1 7h15v7H1zM16 12l7-1M5.500 20a2.800 2.800 0 1 0 0-5.600a2.800 2.800 0 0 0 0 5.600zM12.500 20a2.800 2.800 0 1 0 0-5.600a2.800 2.800 0 0 0 0 5.600z',
  bale: 'M3 9l6-4h12v9l-6 5H3zM3 9h12v10M15 9l6-4M7 9v10M11 9v10',
  hand: 'M6 13V7q0-2 2-2t2 2V4q0-2 2-2t2 2v3q0-2 2-2t2 2v8q0 7-6 7t-8-5l-2-5q1-2 2 0z',
  other: 'M5 6h14v13H5zM5 10h14',
  kg: 'M12 3v4M7 7h10l2 13H5zM9.5 14a2.5 2.5 0 1 0 5 0a2.5 2.5 0 1 0-5 0',
  litre: 'M12 3q7 8 7 12a7 6.5 0 0 1-14 0q0-4 7-12z',
}
</script>

<template>
  <svg :width="size" :height="size" viewBox="0 0 24 24" aria-hidden="true">
    <path :d="PATHS[glyph] ?? PATHS.other" class="hatch-line" />
  </svg>
</template>
