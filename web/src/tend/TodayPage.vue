<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Tended, TodayLine as Line } from '@/api/client'
import { useOutbox } from '@/api/outbox/useOutbox'
import { useAttempt } from '@/kit/useAttempt'
import { useSlip } from '@/kit/useSlip'
import ActButton from '@/kit/ActButton.vue'
import StateNote from '@/kit/StateNote.vue'
import { useHeaps } from '@/build/useHeaps'
import CalendarPart from './CalendarPart.vue'
import HeatStrip from './HeatStrip.vue'
import TendDialog from './TendDialog.vue'
import TodayLine from './TodayLine.vue'
import type { TendKind } from './forms'
import { useJudgeWords } from './useJudgeWords'
import { useLineWords } from './useLineWords'
import { useStrips } from './useStrips'
import { useTend } from './useTending'
import { useToday } from './useToday'
import { doneBy, grouped } from './today'

/** What to do now, heap by heap; what comes after stands below. */
const { say, t } = useJudgeWords()
const { site, today, error, retry, tick } = useToday()
const { strips } = useStrips()
const { heaps } = useHeaps()
const { short } = useLineWords()
const { tend } = useTend()
const { attempt } = useAttempt()
const slip = useSlip()

/** What was ticked off here and is not with the farm yet is done all the same. */
const outbox = useOutbox()
const written = computed(() =>
  outbox.comes
    .filter(({ kind }) => kind === 'heap-tend')
    .map(({ of, body }) => ({ heap: of, kind: (body?.what as Tended | undefined)?.kind })),
)
function isWritten(line: Line): boolean {
  const acts = doneBy(line)
  const kind = 'ask' in acts ? acts.ask : acts.write[0]?.kind
  return !line.prepare && written.value.some((one) => one.heap === line.heap && one.kind === kind)
}
const now = computed(() =>
  (today.value?.lines ?? []).filter((line) => line.on === today.value?.today && !isWritten(line)),
)
const later = computed(() => (today.value?.lines ?? []).filter(({ on }) => on !== today.value?.today))
const open = computed(() => now.value.filter(({ prepare }) => !prepare?.is_done))

const headline = computed(() => {
  if (!today.value) return t('today.title')
  if (!today.value.heaps.length && !today.value.lines.length) return t('today.none')
  if (open.value.length) return t('today.some', { n: open.value.length }, open.value.length)
  const [next] = later.value
  return next ? t('today.nothing', { what: short(next), when: say.day(next.on) }) : t('today.nothingAtAll')
})
const under = computed(() => {
  const [first] = open.value
  return first ? t('today.first', { what: short(first) }) : ''
})

/** What is to be done now, heap by heap, each with its strip. */
const groups = computed(() =>
  grouped(now.value).map((group) => ({
    ...group,
    strip: strips.value?.find(({ id }) => id === group.heap) ?? null,
  })),
)
/** Later days, each heap by heap. */
const days = computed(() => {
  const by = new Map<string, Line[]>()
  for (const line of later.value) by.set(line.on, [...(by.get(line.on) ?? []), line])
  return [...by].map(([on, lines]) => ({ on, groups: grouped(lines) }))
})

const kind = ref<TendKind | null>(null)
const picked = ref<{ id: string; name: string; begun_at: string } | null>(null)
const heapOf = (line: Line) => heaps.value?.find(({ id }) => id === line.heap) ?? null

/** Ticks a line off: an act is written into the log, a look asks what was found. */
async function done(line: Line) {
  if (line.prepare) {
    const { batch, key, is_done } = line.prepare
    const kept = await attempt(() => tick.mutateAsync({ batch, key, done: !is_done }))
    if (kept && !is_done)
      slip.said({
        text: t('today.ticked', { what: short(line) }),
        undoLabel: t('app.undo'),
        undo: () => void attempt(() => tick.mutateAsync({ batch, key, done: false })),
      })
    return
  }
  const heap = heapOf(line)
  if (!heap) return
  const acts = doneBy(line)
  if ('ask' in acts) {
    picked.value = heap
    kind.value = acts.ask
    return
  }
  for (const what of acts.write) await tend(heap, { what })
}
</script>

<template>
  <header class="page-head">
    <div aria-live="polite">
      <h1>{{ headline }}</h1>
      <p v-if="today && !today.lines.length && !today.heaps.length">{{ t('today.noneHint') }}</p>
      <p v-else-if="under">{{ under }}</p>
    </div>
    <div v-if="today && !today.heaps.length" class="acts">
      <ActButton to="/bench" :label="t('today.toBench')" />
    </div>
  </header>
  <StateNote v-if="!today" :error="error" @retry="retry" />
  <template v-else>
    <ul class="now">
      <li v-for="group in groups" :key="group.whose">
        <div class="whose">
          <h2>
            <RouterLink v-if="group.heap" :to="`/heaps/${group.heap}`">{{ group.name }}</RouterLink>
            <template v-else>{{ group.name }}</template>
          </h2>
          <HeatStrip v-if="group.strip" :strip="group.strip" />
        </div>
        <ul>
          <TodayLine v-for="line in group.lines" :key="line.id" :line="line" @done="done(line)" />
        </ul>
      </li>
    </ul>
    <section v-if="days.length" :aria-label="t('today.later')" class="later">
      <h2 class="ruled">{{ t('today.later') }}</h2>
      <dl>
        <div v-for="day in days" :key="day.on">
          <dt>{{ say.day(day.on) }}</dt>
          <dd>
            <div v-for="group in day.groups" :key="group.whose" class="then">
              <h3 :class="{ alone: group.lines.length === 1 }">
                <RouterLink v-if="group.heap" :to="`/heaps/${group.heap}`">{{ group.name }}</RouterLink>
                <template v-else>{{ group.name }}</template>
              </h3>
              <ul :class="{ alone: group.lines.length === 1 }">
                <li v-for="line in group.lines" :key="line.id">
                  {{ short(line, true) }}
                  <span v-if="line.task?.is_expected" class="quiet small">{{ t('task.expected') }}</span>
                </li>
              </ul>
            </div>
          </dd>
        </div>
      </dl>
    </section>
    <CalendarPart v-if="site && today.heaps.length" :site="site.id" />
    <p class="quiet small warn">{{ t('today.warn') }}</p>
    <TendDialog v-if="picked" :heap="picked" :kind="kind" @close="kind = null" />
  </template>
</template>

<style scoped>
.now {
  margin-top: 18px;
  border-top: 1.5px solid var(--ink);
}

.now > li {
  padding: 12px 0 8px;
  border-bottom: 1px solid var(--line);
}

.whose {
  display: grid;
  grid-template-columns: minmax(0, 200px) minmax(0, 520px);
  gap: 2px 20px;
  align-items: center;
}

.whose h2 {
  font-size: 1rem;
  line-height: 1.25;
  color: var(--ink-2);
  overflow-wrap: anywhere;
}

.whose h2 a,
.then h3 a {
  display: inline-flex;
  align-items: center;
  min-height: 32px;
  color: inherit;
  text-decoration-thickness: 1px;
  text-underline-offset: 3px;
}

.then h3 {
  font-size: 1rem;
  font-weight: 640;
}

.then + .then {
  margin-top: 6px;
}

.then li {
  padding: 2px 0;
}

/* One thing to do stands behind the name. */
.alone,
.alone li {
  display: inline;
}

h3.alone::after {
  content: ': ';
}

.later {
  max-width: 760px;
  margin-top: 30px;
}

dl > div {
  display: grid;
  grid-template-columns: 128px minmax(0, 1fr);
  gap: 12px;
  padding: 9px 0;
  border-bottom: 1px solid var(--line);
}

dt {
  color: var(--ink-2);
}

.warn {
  margin-top: 18px;
}

@media (max-width: 559px) {
  .whose,
  dl > div {
    grid-template-columns: minmax(0, 1fr);
    gap: 2px;
  }
}
</style>
