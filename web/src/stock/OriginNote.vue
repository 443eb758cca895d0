<script setup lang="ts">
import type { Figure } from '@/api/client'
import { useSay } from '@/words/useSay'

/** Where a figure came from: measured when and how, own, or from the book. */
const { figure } = defineProps<{ figure: Figure }>()
const say = useSay()
const { t } = say
</script>

<template>
  <span class="origin" :class="figure.origin">
    {{
      figure.test
        ? t('origin.tested', { test: t(`test.${figure.test.kind}`), day: say.day(figure.test.on) })
        : t(`origin.${figure.origin}`)
    }}
  </span>
</template>

<style scoped>
.origin {
  font-size: 0.875rem;
  line-height: 1.25;
  color: var(--ink-2);
}

.measured,
.own {
  color: var(--ink);
  font-weight: 600;
}
</style>
