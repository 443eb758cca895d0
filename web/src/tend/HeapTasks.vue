<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Task } from '@/api/client'
import { useJudgeWords } from './useJudgeWords'

/** What is to be done at this heap, and why then; what lies far ahead behind one more tap. */
const { id, tasks } = defineProps<{ id: string; tasks: Task[] }>()
const { say, t, does, why } = useJudgeWords()

const FEW = 3
const isAll = ref(false)
const shown = computed(() => (isAll.value ? tasks : tasks.slice(0, FEW)))
</script>

<template>
  <section v-if="tasks.length" :aria-label="t('heap.next')">
    <h2 class="ruled">
      {{ t('heap.next') }}
      <a class="small" :href="`/api/heaps/${id}/tasks.ics`" download="tasks.ics">{{
        t('today.calendarFile')
      }}</a>
    </h2>
    <ul>
      <li v-for="task in shown" :key="task.id">
        <span class="day">{{ say.day(task.on) }}</span>
        <span>
          <b>{{ does(task) }}</b>
          <span v-if="task.days_late" class="late">{{
            t('task.late', { n: task.days_late }, task.days_late)
          }}</span>
          <span class="small why">{{ why(task) }}</span>
          <span v-if="task.is_expected" class="quiet small">{{ t('task.expected') }}</span>
        </span>
      </li>
    </ul>
    <button v-if="tasks.length > FEW" type="button" class="word-act" @click="isAll = !isAll">
      {{ isAll ? t('tend.fewer') : t('tend.allOf', { n: tasks.length }) }}
    </button>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr);
  gap: 12px;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}

.day {
  color: var(--ink-2);
}

.why {
  display: block;
}

.late {
  margin-left: 8px;
  font-weight: 650;
  color: var(--alarm);
}

@media (max-width: 559px) {
  li {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
}
</style>
