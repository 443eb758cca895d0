<script setup lang="ts">
import { computed } from 'vue'
import { useSay } from '@/words/useSay'
import { CAUSES, isCause } from './causes'

/** One cause of trouble: how to tell, what to do, what not to do. */
const { code } = defineProps<{ code: string }>()
const { t } = useSay()
const known = computed(() => (isCause(code) ? code : null))
const next = computed(() => CAUSES[(CAUSES.indexOf(known.value ?? 'done') + 1) % CAUSES.length]!)
</script>

<template>
  <p class="crumb">
    <RouterLink to="/reference/causes">{{ t('cause.all') }}</RouterLink>
  </p>
  <article v-if="known">
    <header class="page-head">
      <h1>{{ t(`cause.name.${known}`) }}</h1>
    </header>
    <section v-for="part in ['tell', 'do', 'dont'] as const" :key="part">
      <h2 class="ruled">{{ t(`cause.${part}`) }}</h2>
      <p>
        {{ t(`cause.${part === 'tell' ? 'tells' : part === 'do' ? 'does' : 'not'}.${known}`) }}
      </p>
    </section>
    <p class="quiet small">{{ t('today.warn') }}</p>
    <p>
      <RouterLink :to="`/reference/causes/${next}`" class="row-link">{{
        t('cause.next', { name: t(`cause.name.${next}`) })
      }}</RouterLink>
    </p>
  </article>
  <p v-else role="alert">{{ t('cause.unknown', { code }) }}</p>
</template>

<style scoped>
article {
  max-width: 680px;
}

section {
  margin-top: 18px;
}

section p {
  margin-top: 6px;
}

.row-link {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}

article > p {
  margin-top: 16px;
}
</style>
