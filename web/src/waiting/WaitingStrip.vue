<script setup lang="ts">
import { computed } from 'vue'
import { useOutbox } from '@/api/outbox/useOutbox'
import { useSay } from '@/words/useSay'

/** Always in sight while anything waits: how much, and whether somebody has to decide. */
const { t } = useSay()
const outbox = useOutbox()
const words = computed(() => {
  const stuck = outbox.stuck.length
  return [t('waits.some', outbox.waiting.length), stuck ? t('waits.stuck', stuck) : ''].filter(Boolean)
})
</script>

<template>
  <p class="strip" role="status" :class="{ alarm: outbox.stuck.length }">
    <span>{{ words.join(' ') }}</span>
    <RouterLink to="/waiting">{{ t('waits.see') }}</RouterLink>
  </p>
</template>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 0 16px;
  align-items: center;
  margin: 0;
  padding: 4px 28px 0;
  border-bottom: 1px solid var(--line);
  background: var(--tint);
  color: var(--ink);
}

.strip.alarm {
  border-bottom-color: var(--alarm);
}

a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}

@media (max-width: 859px) {
  .strip {
    padding: 4px 16px 0;
  }
}

@media print {
  .strip {
    display: none;
  }
}
</style>
