<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, onScopeDispose, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { api } from '@/api/client'
import { trouble } from '@/api/trouble'

/**
 * Says at once that the farm cannot be reached and what becomes of what is done meanwhile; asks again
 * by itself, and once there is an answer everything on the page is asked anew.
 */
const { t } = useI18n()
const queries = useQueryClient()
const AGAIN_MS = 3000
let timer = 0

const words = computed(() => {
  const now = trouble.value
  if (!now) return ''
  return now.is === 'silent'
    ? t('app.noServer')
    : `${now.words.charAt(0).toUpperCase()}${now.words.slice(1)}.`
})

async function again() {
  // Any question that needs the data file.
  await api.GET('/api/sites').catch(() => undefined)
  if (trouble.value) timer = window.setTimeout(() => void again(), AGAIN_MS)
}

watch(trouble, (now, before) => {
  if (now && !before) timer = window.setTimeout(() => void again(), AGAIN_MS)
  if (now || !before) return
  window.clearTimeout(timer)
  void queries.invalidateQueries()
})
onScopeDispose(() => window.clearTimeout(timer))
</script>

<template>
  <div class="trouble">
    <p v-if="words" role="alert">
      <b>{{ words }}</b> {{ t('app.oldMeanwhile') }}
    </p>
  </div>
</template>

<style scoped>
p {
  margin: 0;
  padding: 10px 28px;
  border-bottom: 2px solid var(--alarm);
  background: var(--paper);
  color: var(--ink);
}

b {
  color: var(--alarm);
}

@media (max-width: 859px) {
  p {
    padding: 8px 16px;
  }
}

@media print {
  .trouble {
    display: none;
  }
}
</style>
