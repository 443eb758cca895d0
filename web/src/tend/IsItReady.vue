<script setup lang="ts">
import { computed } from 'vue'
import type { Readiness } from '@/api/client'
import { useJudgeWords } from './useJudgeWords'

/** How far it is, why, what would settle it, and when it should be ready. */
const { readiness } = defineProps<{ readiness: Readiness }>()
const { say, t, ripe } = useJudgeWords()

const STAGES = ['working', 'cooling', 'curing', 'ready'] as const
const reached = computed(() => STAGES.indexOf(readiness.stage))
const sorted = (speaksFor: boolean) =>
  sentence(readiness.told.filter(({ speaks_for }) => speaks_for === speaksFor).map(ripe))
/** Clauses as one sentence. */
const sentence = (clauses: string[]) => {
  const words = clauses.join('; ')
  return words && `${words.charAt(0).toUpperCase()}${words.slice(1)}.`
}
const between = (key: string, days?: string[] | null) =>
  days ? t(`ripe.${key}`, { from: say.day(days[0]!), to: say.day(days[1]!) }) : ''
</script>

<template>
  <section :aria-label="t('ripe.title')">
    <h2 class="ruled">{{ t('ripe.title') }}</h2>
    <p class="said">{{ t(`ripe.is.${readiness.stage}`) }}.</p>
    <ol class="stages" :aria-label="t('ripe.title')">
      <li
        v-for="(stage, nth) in STAGES"
        :key="stage"
        :class="{ past: nth < reached, here: nth === reached }"
        :aria-current="nth === reached ? 'step' : undefined"
      >
        {{ t(`stage.${stage}`) }}
      </li>
    </ol>
    <template v-if="sorted(true)">
      <h3 class="small">{{ t('ripe.reasons') }}</h3>
      <p>{{ sorted(true) }}</p>
    </template>
    <template v-if="sorted(false)">
      <h3 class="small">{{ t('ripe.reasonsNot') }}</h3>
      <p>{{ sorted(false) }}</p>
    </template>
    <template v-if="readiness.settle.length">
      <h3 class="small">{{ t('ripe.settleTitle') }}</h3>
      <ul>
        <li v-for="one in readiness.settle" :key="one">{{ t(`ripe.settle.${one}`) }}</li>
      </ul>
    </template>
    <template v-if="readiness.stage === 'cooling' || readiness.stage === 'curing'">
      <h3 class="small">{{ t('ripe.planTitle') }}</h3>
      <p>{{ t('ripe.plan') }}</p>
    </template>
    <p v-if="readiness.cures_on || readiness.ready_on" class="when">
      {{ between('cures', readiness.cures_on) }} {{ between('ready', readiness.ready_on) }}
      <span class="quiet small">{{ t('ripe.expected') }}</span>
    </p>
  </section>
</template>

<style scoped>
.said {
  margin: 6px 0;
  font-size: 1.1875rem;
  font-weight: 600;
}

.stages {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  margin: 8px 0 12px;
}

.stages li {
  padding: 6px 4px 0 0;
  border-top: 4px solid var(--line);
  color: var(--ink-2);
}

.stages .past {
  border-top-color: var(--ink-2);
}

.stages .here {
  border-top-color: var(--ink);
  color: var(--ink);
  font-weight: 650;
}

h3 {
  margin-top: 8px;
  font-weight: 600;
  color: var(--ink-2);
}

ul {
  margin-left: 18px;
  list-style: disc;
}

.when {
  margin-top: 10px;
}
</style>
