<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, watch } from 'vue'
import BeginBuild from '@/build/BeginBuild.vue'
import StarterList from './StarterList.vue'
import StateNote from '@/kit/StateNote.vue'
import { useBatches } from './useBatches'
import { usePrepare } from './usePrepare'
import { usePrepareWords } from './usePrepareWords'
import { useTicks } from './useTicks'
import { useSay } from '@/words/useSay'
import { daysBetween, type Todo } from './agenda'
import { useDraft } from '@/mix/draft'

/** What has to be ready before the first layer, day by day back from build day. */
const say = useSay()
const { t } = say
const store = useDraft()
const { answer, isEmpty, error, retry, today, days } = usePrepare()

const buildOn = computed(() => answer.value?.build_on ?? store.draft.build_on ?? '')
const open = computed(() =>
  days.value.reduce((sum, { todos }) => sum + todos.filter(({ key }) => !isDone(key)).length, 0),
)
/** What is ticked off stands with the batch once there is one; before that, and without signal, here. */
const { batches } = useBatches()
const saved = computed(() => batches.value?.find(({ id }) => id === store.draft.saved?.id) ?? null)
const isDone = (key: string) => store.draft.done.includes(key) || (saved.value?.done.includes(key) ?? false)
const ticks = useTicks()
async function tick(key: string) {
  const batch = saved.value?.id
  if (!batch) return store.tick(key)
  const isHere = store.draft.done.includes(key)
  try {
    await ticks.mutateAsync({ batch, key, done: !isDone(key) })
    if (isHere) store.tick(key)
  } catch {
    store.tick(key)
  }
}
watch(
  () => saved.value?.id,
  async (batch) => {
    if (!batch) return
    for (const key of [...store.draft.done]) {
      await ticks.mutateAsync({ batch, key, done: true }).then(
        () => store.tick(key),
        () => undefined,
      )
    }
  },
  { immediate: true },
)

const headline = computed(() => {
  if (isEmpty.value) return t('layers.empty')
  if (!answer.value) return t('prepare.title')
  const day = say.day(answer.value.build_on)
  if (answer.value.days < 0) return t('prepare.passed', { day })
  return open.value ? t('prepare.toDo', { n: open.value, day }, open.value) : t('prepare.ready', { day })
})

/** Starters that were taken and cannot be ready on the day, and when they would be. */
const late = computed(() =>
  (answer.value?.starters ?? []).filter(({ chosen, timing }) => chosen && timing === 'too-late'),
)
const soonest = computed(
  () =>
    late.value
      .map(({ ready_on }) => ready_on)
      .sort()
      .at(-1) ?? '',
)
const stillReady = computed(() =>
  (answer.value?.starters ?? [])
    .filter(({ purpose, chosen, timing }) => purpose === 'build' && !chosen && timing === 'in-time')
    .map(({ id }) => t(`starter.${id}.name`).toLowerCase())
    .join(', '),
)

function dayName(on: string): string {
  const left = daysBetween(on, buildOn.value)
  const away = daysBetween(today.value, on)
  const when = away === 0 ? t('prepare.today') : away === 1 ? t('prepare.tomorrow') : ''
  const what = left === 0 ? t('prepare.buildDay') : left === 1 ? t('prepare.dayBefore') : ''
  return [say.day(on), [what, when].filter(Boolean).join(', ')].filter(Boolean).join(': ')
}

const { stepWords, jobWords } = usePrepareWords()
function todoWords({ starter, task, need }: Todo): string {
  if (starter && task) return stepWords(starter.id, task)
  if (!need) return ''
  return jobWords(need, need.item == null ? null : (store.draft.items[need.item] ?? null))
}
</script>

<template>
  <header class="page-head">
    <div aria-live="polite">
      <h1>{{ headline }}</h1>
      <p>{{ store.draft.saved?.name }}</p>
    </div>
    <div class="acts">
      <ActButton
        :to="isEmpty ? '/bench' : '/layers'"
        variant="outlined"
        :label="t(isEmpty ? 'layers.toBench' : 'prepare.toLayers')"
      />
      <BeginBuild v-if="!isEmpty" />
    </div>
  </header>
  <template v-if="!isEmpty">
    <div class="day">
      <label for="build-on">{{ t('prepare.buildOn') }}</label>
      <input
        id="build-on"
        type="date"
        :value="buildOn"
        :min="today"
        @change="(event) => store.setBuildOn((event.target as HTMLInputElement).value || null)"
      />
    </div>
    <p v-if="late.length" class="late" role="status">
      {{
        t('prepare.late', {
          names: late.map(({ id }) => t(`starter.${id}.name`)).join(', '),
          day: say.day(soonest),
        })
      }}
      <button type="button" class="word-act" @click="store.setBuildOn(soonest)">
        {{ t('prepare.buildThen', { day: say.day(soonest) }) }}
      </button>
      <span v-if="stillReady">{{ t('prepare.stillReady', { names: stillReady }) }}</span>
    </p>
    <StateNote v-if="!answer" :error="error" @retry="retry" />
    <div v-else class="columns">
      <section :aria-label="t('prepare.list')">
        <template v-for="{ on, todos } in days" :key="on">
          <h2 class="ruled">{{ dayName(on) }}</h2>
          <ul>
            <li v-for="todo in todos" :key="todo.key">
              <label :class="{ done: isDone(todo.key) }">
                <input type="checkbox" :checked="isDone(todo.key)" @change="tick(todo.key)" />
                <span>{{ todoWords(todo) }}</span>
              </label>
            </li>
          </ul>
        </template>
        <p class="quiet small">{{ t('layers.care') }}</p>
      </section>
      <StarterList :answer="answer" />
    </div>
  </template>
</template>

<style scoped>
.day {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-top: 16px;
}

.day label {
  font-weight: 600;
}

.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 20px 32px;
  align-items: start;
  margin-top: 16px;
}

section h2:not(:first-child) {
  margin-top: 18px;
}

li {
  border-bottom: 1px solid var(--line);
}

li label {
  display: flex;
  gap: 12px;
  align-items: flex-start;
  min-height: 44px;
  padding: 9px 0;
  cursor: pointer;
}

li input {
  flex: none;
  width: 24px;
  height: 24px;
  accent-color: var(--act);
}

.done {
  color: var(--ink-2);
  text-decoration: line-through;
}

.late {
  margin-top: 12px;
  padding: 3px 0 3px 12px;
  border-inline-start: 3px solid var(--alarm);
}

@media (max-width: 859px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
