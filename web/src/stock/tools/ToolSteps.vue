<script setup lang="ts">
import { useI18n } from 'vue-i18n'

/** How a test is done, step by step, beside its drawing. */
const { kind, count } = defineProps<{ kind: string; count: number }>()
const { t } = useI18n()
</script>

<template>
  <div class="guided">
    <div class="drawing"><slot name="drawing" /></div>
    <div>
      <ol>
        <li v-for="step in count" :key="step">{{ t(`tool.${kind}.step${step}`) }}</li>
      </ol>
      <div class="fields"><slot /></div>
    </div>
  </div>
</template>

<style scoped>
.guided {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.3fr);
  gap: 16px 36px;
}

.drawing :deep(svg) {
  display: block;
  width: 100%;
  max-height: 380px;
}

ol {
  padding-inline-start: 1.4em;
  list-style: decimal;
}

li + li {
  margin-top: 5px;
}

.fields {
  display: flex;
  flex-direction: column;
  gap: 14px;
  margin-top: 16px;
}

@media (max-width: 859px) {
  .guided {
    grid-template-columns: minmax(0, 1fr);
  }

  .drawing :deep(svg) {
    max-height: 230px;
  }
}
</style>
