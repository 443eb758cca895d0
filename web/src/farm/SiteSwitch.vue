<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { useSite } from './useFarm'

/** The site that is open; where there are several, another is one choice away. */
const { id } = defineProps<{ id: string }>()
const { t } = useI18n()
const { sites, site, open } = useSite()
</script>

<template>
  <select
    v-if="sites.length > 1"
    :id="id"
    :value="site?.id"
    :aria-label="t('sites.switch')"
    @change="(event) => open((event.target as HTMLSelectElement).value)"
  >
    <option v-for="one in sites" :key="one.id" :value="one.id">{{ one.name }}</option>
  </select>
  <span v-else>{{ site?.name }}</span>
</template>

<style scoped>
select {
  width: 100%;
  min-height: 44px;
  padding: 4px 2px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--paper);
  color: var(--ink);
  font: inherit;
}
</style>
