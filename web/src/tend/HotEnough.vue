<script setup lang="ts">
import { computed } from 'vue'
import type { HeapJudgement, HeatShown } from '@/api/client'
import DayCells from './DayCells.vue'
import { useJudgeWords } from './useJudgeWords'

/** What was recorded of its heat, what is still wanted, and what follows for use. */
const { judgement } = defineProps<{ judgement: HeapJudgement }>()
const { say, t, still, daysOf } = useJudgeWords()

const first = computed(() => judgement.held_to[0] ?? null)
const headline = computed(() => {
  const shown = judgement.held_to.find(({ status }) => status === 'shown')
  if (shown?.shown_at)
    return t('hot.headline.shown', {
      criterion: t(`hot.criterion.${shown.criterion}`),
      day: say.day(shown.shown_at.slice(0, 10)),
    })
  if (!first.value) return t('hot.none')
  const open = judgement.held_to.find(({ status }) => status === 'not-yet')
  return open ? t('hot.headline.notYet', { what: still(open) }) : t('hot.headline.notShown')
})
const rows = computed(() => [...judgement.held_to, judgement.seeds])

function told(of: HeatShown): string {
  const longest = Math.max(0, ...of.runs.map(({ hours }) => hours))
  const words = [
    longest > 0 ? t('hot.longest', { days: daysOf(longest) }) : t('hot.noRun'),
    of.turns > 0 ? t('hot.turnsIn', { n: of.turns_counted, of: of.turns }) : '',
  ]
  return words.filter(Boolean).join('; ')
}
const standing = (of: HeatShown) =>
  of.status === 'shown' && of.shown_at
    ? t('hot.shown', { day: say.day(of.shown_at.slice(0, 10)) })
    : t(`hot.${of.status}`)
const runs = computed(() => (first.value ?? judgement.seeds).runs.filter(({ hours }) => hours > 0))
const left = computed(() =>
  (first.value ?? judgement.seeds).left_out
    .map(({ reason, count }) => t(`hot.leftWhy.${reason}`, { n: count }))
    .join(', '),
)
const follows = computed(() => {
  const { shown, waits, wait_days } = judgement.follows
  const days = { soil: wait_days[0]!, else: wait_days[1]! }
  if (waits) return t('hot.followsNot', days)
  return shown === 'small-turned' ? t('hot.followsWeaker', days) : t('hot.followsShown')
})
</script>

<template>
  <section :aria-label="t('hot.title')">
    <h2 class="ruled">{{ t('hot.title') }}</h2>
    <p class="said">{{ headline }}</p>
    <DayCells :days="judgement.days" :built-at="judgement.built_at" />
    <ul>
      <li v-for="(row, nth) in rows" :key="`${row.criterion} ${nth}`">
        <b>{{ t(`hot.criterion.${row.criterion}`) }}</b>
        <span class="stand" :class="row.status">{{ standing(row) }}</span>
        <span class="small">
          {{ told(row) }}.
          <template v-if="row.status === 'not-yet' && still(row)">{{
            t('hot.still', { what: still(row) })
          }}</template>
          <span v-if="row.criterion === 'small-turned'" class="quiet">{{ t('hot.weaker') }}</span>
        </span>
      </li>
    </ul>
    <p>
      <b>{{ t('hot.follows') }}:</b> {{ follows }}
    </p>
    <p class="quiet small">
      {{ t(judgement.follows.is_local ? 'hot.local' : 'hot.usual') }} {{ t('hot.said') }}
      <RouterLink to="/follows">{{ t('school.title') }}</RouterLink>
    </p>
    <details v-if="runs.length || left">
      <summary>{{ t('hot.working') }}</summary>
      <ol class="small">
        <li v-for="run in runs" :key="run.from">
          {{
            t('hot.run', {
              from: say.time(run.from),
              to: say.time(run.to),
              days: daysOf(run.hours),
              n: say.whole(run.readings),
              temp: say.of(run.coldest_c, 'temperature'),
            })
          }}<template v-if="run.ended">, {{ t(`hot.ended.${run.ended}`) }}</template
          >.
        </li>
      </ol>
      <p v-if="left" class="small quiet">{{ t('hot.leftOut', { what: left }) }}</p>
    </details>
  </section>
</template>

<style scoped>
.said {
  margin: 6px 0 10px;
  font-size: 1.1875rem;
  font-weight: 600;
}

ul {
  margin: 12px 0;
}

ul li {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) auto;
  gap: 2px 14px;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}

ul li .small {
  grid-column: 1 / -1;
}

.stand {
  font-weight: 650;
}

.stand::before {
  margin-right: 6px;
  content: '○';
}

.stand.shown::before {
  content: '●';
}

.stand.not-yet::before {
  content: '◐';
}

summary {
  padding: 11px 0;
  font-weight: 600;
  cursor: pointer;
}

ol li {
  padding: 3px 0;
}
</style>
