<script setup lang="ts">
import { computed, ref, useId } from 'vue'
import type { TodayLine } from '@/api/client'
import { useJudgeWords } from './useJudgeWords'
import { useLineWords } from './useLineWords'

/** One thing to do: what, where, how much, why; ticked off with a thumb. */
const { line } = defineProps<{ line: TodayLine }>()
const emit = defineEmits<{ done: [] }>()
const { say, t, act, clue, remedy } = useJudgeWords()
const { bare, reason } = useLineWords()
const isOpen = ref(false)
const id = useId()

const isDone = computed(() => line.prepare?.is_done ?? false)
const late = computed(() => line.task?.days_late ?? line.prepare?.days_late ?? 0)
const title = computed(() => `${line.name}: ${bare(line)}`)
/** An act is done at a tap, a look asks what was found. */
const ticks = computed(() => {
  if (line.prepare) return t(isDone.value ? 'today.untick' : 'today.done')
  return line.task ? t(`task.done.${line.task.kind}`) || t('today.done') : t('today.done')
})
const tools = computed(() => (line.task ? t(`task.with.${line.task.kind}`) : ''))
const canTick = computed(() => line.prepare !== null || line.task?.kind !== 'cure')
</script>

<template>
  <li :class="{ done: isDone }">
    <div class="what">
      <h3>
        <span class="only-read">{{ line.name }}: </span>{{ bare(line) }}
      </h3>
      <p>
        {{ reason(line) }}
        <b v-if="late">{{ t('task.late', { n: late }, late) }}</b>
      </p>
      <div v-if="isOpen" :id="id" class="more small">
        <template v-if="line.cause">
          <p>{{ remedy(line.cause) }}</p>
          <p class="quiet">{{ line.cause.for.map(clue).join('; ') }}.</p>
          <p>
            <RouterLink :to="`/reference/causes/${line.cause.code}`" class="row-link">{{
              t('cause.read')
            }}</RouterLink>
          </p>
        </template>
        <template v-else-if="line.task">
          <p>{{ tools }}.</p>
          <p v-if="line.task.latest > line.task.on" class="quiet">
            {{ t('task.until', { day: say.day(line.task.latest) }) }}
          </p>
        </template>
      </div>
      <ul v-else-if="line.cause && line.cause.remedy.length > 1" class="acts-too small">
        <li v-for="one in line.cause.remedy.slice(1)" :key="one.act">{{ act(one) }}</li>
      </ul>
      <button
        v-if="!line.prepare"
        type="button"
        class="word-act"
        :aria-expanded="isOpen"
        :aria-controls="id"
        @click="isOpen = !isOpen"
      >
        {{ t(isOpen ? 'today.hide' : 'today.show') }}
      </button>
    </div>
    <button
      v-if="canTick"
      type="button"
      class="tick"
      data-deed="work"
      :aria-label="`${ticks}: ${title}`"
      :aria-pressed="line.prepare ? isDone : undefined"
      @click="emit('done')"
    >
      <svg width="30" height="30" viewBox="0 0 30 30" aria-hidden="true">
        <path d="M7 16l6 6L24 9" />
      </svg>
      <span class="small">{{ ticks }}</span>
    </button>
  </li>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 104px;
  gap: 4px 20px;
  align-items: start;
  padding: 6px 0;
}

h3 {
  font-size: 1.1875rem;
  line-height: 1.25;
}

.what p {
  margin-top: 3px;
}

.more {
  margin-top: 8px;
}

.acts-too {
  margin: 6px 0 0 18px;
  list-style: disc;
}

.acts-too li {
  display: list-item;
  padding: 0;
  border: 0;
}

.row-link {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}

.tick {
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 3px;
  min-height: 76px;
  padding: 6px;
  border: 1.5px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--sheet);
  line-height: 1.15;
  cursor: pointer;
}

.tick:hover {
  background: var(--tint);
}

.tick path {
  fill: none;
  stroke: var(--line);
  stroke-width: 2.6;
  stroke-linecap: round;
  stroke-linejoin: round;
}

.tick:hover path,
.done .tick path {
  stroke: var(--act);
}

.done h3 {
  color: var(--ink-2);
  text-decoration: line-through;
}

@media (max-width: 559px) {
  li {
    grid-template-columns: minmax(0, 1fr) 84px;
    gap: 4px 12px;
  }
}
</style>
