<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { told } from './refusals'

/** Says that something is being fetched, or that it could not be, with a way to try again. */
const { error } = defineProps<{ error?: Error | null }>()
const emit = defineEmits<{ retry: [] }>()
const { t } = useI18n()
</script>

<template>
  <p v-if="!error" class="quiet" aria-live="polite">{{ t('app.loading') }}</p>
  <div v-else role="alert" class="failed">
    <p>{{ told(error, { noServer: t('app.noServer') }) }}</p>
    <button type="button" class="word-act" @click="emit('retry')">{{ t('app.retry') }}</button>
  </div>
</template>

<style scoped>
.failed {
  padding: 12px 16px;
  border: 1.5px solid var(--alarm);
}
</style>
