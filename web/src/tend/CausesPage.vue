<script setup lang="ts">
import { useSay } from '@/words/useSay'
import { CAUSES } from './causes'

/** What goes wrong with a heap: each cause with its page. */
const { t } = useSay()
</script>

<template>
  <p class="crumb">
    <RouterLink to="/reference">{{ t('nav.reference') }}</RouterLink>
  </p>
  <header class="page-head">
    <h1>{{ t('cause.all') }}</h1>
  </header>
  <ul>
    <li v-for="code in CAUSES" :key="code">
      <h2>
        <RouterLink :to="`/reference/causes/${code}`">{{ t(`cause.name.${code}`) }}</RouterLink>
      </h2>
      <p>{{ t(`cause.tells.${code}`) }}</p>
    </li>
  </ul>
</template>

<style scoped>
ul {
  max-width: 760px;
  margin-top: 16px;
  border-top: 1.5px solid var(--ink);
}

li {
  padding: 10px 0;
  border-bottom: 1px solid var(--line);
}

h2 {
  font-size: 1.0625rem;
}

h2 a {
  display: inline-flex;
  align-items: center;
  min-height: 40px;
}
</style>
