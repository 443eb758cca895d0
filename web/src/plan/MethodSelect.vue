<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useBench } from '@/mix/useBench'
import { useMethod } from './useMethod'
import { useDraft } from '@/mix/draft'

/** The method of what lies on the bench, and the way to the page that helps to choose. */
const { t } = useI18n()
const store = useDraft()
const { answer } = useBench()
const { methods, methodName, choose } = useMethod(computed(() => answer.value?.layers ?? null))
</script>

<template>
  <div class="choice">
    <label for="method">{{ t('bench.method') }}</label>
    <select
      id="method"
      :value="store.draft.method ?? ''"
      @change="(event) => choose((event.target as HTMLSelectElement).value || null)"
    >
      <option value="">{{ t('bench.noMethod') }}</option>
      <option v-for="one in methods" :key="one.id" :value="one.id">{{ methodName(one.id) }}</option>
    </select>
    <RouterLink to="/methods" class="word-act which">{{ t('bench.whichMethod') }}</RouterLink>
  </div>
</template>

<style scoped>
.which {
  display: inline-flex;
  align-items: center;
  text-decoration: none;
}

.choice {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
}

label {
  font-weight: 600;
}

.choice select {
  flex: 1;
  min-width: 180px;
}
</style>
