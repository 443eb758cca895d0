<script setup lang="ts">
import { useI18n } from 'vue-i18n'

const { t } = useI18n()
</script>

<template>
  <h1>{{ t('app.lost') }}</h1>
  <p>
    <RouterLink to="/bench">{{ t('app.lostBack') }}</RouterLink>
  </p>
</template>
