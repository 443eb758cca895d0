<script setup lang="ts">
/** Own signs for the small tests, in the line weight of the hatches. */
const { kind } = defineProps<{ kind: string }>()

const PATHS: Record<string, string> = {
  weigh: 'M22 3v5M14 8h16v9H14zM22 12l4-2M22 17v4M13 25h18l-3 14H16zM13 25q9-8 18 0',
  drying: 'M6 28h32l-4 9H10zM12 28q10-9 20 0M15 20q-3-4 0-7t0-7M22 18q-3-4 0-7t0-7M29 20q-3-4 0-7t0-7',
  squeeze: 'M11 22q-2-10 5-12h12q6 1 6 7v6q0 7-8 7h-8q-6 0-7-8zM17 10v9M22 10v9M27 10v9M20 34v5M26 33v3',
  bucket: 'M9 10h26l-4 29H13zM9 10q13-8 26 0M10.5 20h23M12 29.500h20',
  lab: 'M10 5h18l6 6v28H10zM28 5v6h6M15 18h14M15 24h14M15 30h8',
  bean: 'M12 27h20l-3 12H15zM22 27V15M22 18q-9 0-9-8q9 0 9 8M22 15q8 0 9-8q-9 0-9 8',
}
</script>

<template>
  <svg width="44" height="44" aria-hidden="true"><path :d="PATHS[kind]" class="hatch-line" /></svg>
</template>
