<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Material } from '@/api/client'

/** What to mind with hands on it: every caution of the materials that belongs to building, once. */
const { materials } = defineProps<{ materials: Material[] }>()
const { t } = useI18n()

const lines = computed(() => {
  const found = new Map<string, Set<string>>()
  for (const { name, cautions } of materials)
    for (const caution of cautions)
      if (caution.moments.includes('build'))
        found.set(caution.code, (found.get(caution.code) ?? new Set()).add(name))
  return [...found].map(([code, names]) => ({ code, names: [...names].join(', ') }))
})
</script>

<template>
  <section class="care" :aria-label="t('lotPage.minding')">
    <p>{{ t('layers.care') }}</p>
    <ul>
      <li v-for="line in lines" :key="line.code">
        <b>{{ line.names }}:</b> {{ t(`caution.${line.code}`) }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
.care {
  margin-top: 14px;
  padding: 10px 14px;
  background: var(--paper-2);
  font-size: 0.9375rem;
}

li {
  margin-top: 5px;
  line-height: 1.35;
}
</style>
