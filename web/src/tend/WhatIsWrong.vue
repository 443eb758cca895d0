<script setup lang="ts">
import { computed } from 'vue'
import type { Cause } from '@/api/client'
import { useJudgeWords } from './useJudgeWords'

/** Causes that may hold, the one to act on first before the others; or that nothing is wrong. */
const { causes, isWell } = defineProps<{ causes: Cause[]; isWell: boolean }>()
const { t, clue, remedy, strength } = useJudgeWords()

const headline = computed(() => {
  if (isWell) return t('cause.nothing')
  const first = causes.find(({ harmless }) => !harmless)
  return first ? t('cause.headline', { is: t(`cause.is.${first.code}`) }) : t('cause.nothing')
})
</script>

<template>
  <section :aria-label="t('cause.title')">
    <h2 class="ruled">{{ t('cause.title') }}</h2>
    <p class="said">{{ headline }}</p>
    <details v-for="(cause, nth) in causes" :key="cause.code" :open="nth === 0 && !isWell">
      <summary>
        <b>{{ t(`cause.name.${cause.code}`) }}</b>
        <span class="quiet small">{{ strength(cause) }}</span>
      </summary>
      <p v-if="cause.remedy.length">{{ remedy(cause) }}</p>
      <dl class="small">
        <dt>{{ t('cause.for') }}</dt>
        <dd>{{ cause.for.map(clue).join('; ') }}</dd>
        <template v-if="cause.against.length">
          <dt>{{ t('cause.against') }}</dt>
          <dd>{{ cause.against.map(clue).join('; ') }}</dd>
        </template>
        <dt>{{ t('cause.check') }}</dt>
        <dd>{{ t(`checkBy.${cause.check}`) }}</dd>
      </dl>
      <RouterLink :to="`/reference/causes/${cause.code}`" class="row-link small">{{
        t('cause.readOf', { cause: t(`cause.name.${cause.code}`) })
      }}</RouterLink>
    </details>
    <p class="quiet small">{{ t('cause.honest') }}</p>
  </section>
</template>

<style scoped>
.said {
  margin: 6px 0;
  font-size: 1.1875rem;
  font-weight: 600;
}

details {
  padding-bottom: 4px;
  border-bottom: 1px solid var(--line);
}

summary {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 12px;
  align-items: center;
  min-height: 44px;
  cursor: pointer;
}

summary::before {
  content: '+';
  width: 16px;
  font-weight: 650;
}

summary b {
  flex: 1;
}

details[open] summary::before {
  content: '−';
}

dl {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 3px 12px;
  margin-top: 6px;
}

dt {
  color: var(--ink-2);
}

.row-link {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}

@media (max-width: 559px) {
  dl {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }

  dd {
    margin-bottom: 5px;
  }
}
</style>
