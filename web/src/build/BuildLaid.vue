<script setup lang="ts">
import { computed, toRef } from 'vue'
import type { Heap } from '@/api/client'
import { isUnreckoned } from './build'
import { useBuildWords } from './useBuildWords'

/** All steps from the ground up: what went in, and what is to come. */
const { heap, busy } = defineProps<{ heap: Heap; busy: boolean }>()
const emit = defineEmits<{ change: [step: number] }>()

const { say, t, hatches, inWords, besideOf } = useBuildWords(toRef(() => heap))

const rows = computed(() =>
  heap.build.steps.map((step, at) => ({
    at,
    hatch:
      step.portions.length > 0
        ? (hatches.value[step.portions[0]!.item] ?? '')
        : step.role === 'foundation'
          ? 'hatch-twigs'
          : '',
    words: inWords(step, besideOf(step)),
    planned: step.planned ? t('build.wasPlanned', { what: inWords(step.planned) }) : '',
    top: isUnreckoned(heap.build) ? '' : say.length(step.top_cm),
    isLaid: at < heap.build.laid,
    isNow: at === heap.build.laid,
  })),
)
</script>

<template>
  <ol>
    <li
      v-for="row in rows"
      :key="row.at"
      :class="{ laid: row.isLaid, now: row.isNow }"
      :aria-current="row.isNow ? 'step' : undefined"
    >
      <span class="number">{{ row.at + 1 }}</span>
      <svg width="26" height="20" aria-hidden="true">
        <rect v-if="row.hatch" width="26" height="20" :fill="`url(#${row.hatch})`" />
      </svg>
      <span class="words">
        {{ row.words }}
        <small v-if="row.planned">{{ row.planned }}</small>
      </span>
      <span class="top">{{ row.top }}</span>
      <button
        v-if="row.isLaid"
        data-deed="work"
        type="button"
        class="word-act"
        :disabled="busy"
        :aria-label="t('build.changeNamed', { n: row.at + 1 })"
        @click="emit('change', row.at)"
      >
        {{ t('build.change') }}
      </button>
      <span v-else class="quiet small">{{ row.isNow ? t('build.now') : '' }}</span>
    </li>
  </ol>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 22px 26px minmax(0, 1fr) auto 62px;
  gap: 10px;
  align-items: center;
  min-height: 48px;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
  color: var(--ink-2);
}

.laid,
.now {
  color: var(--ink);
}

.laid .words,
.now .words {
  font-weight: 600;
}

.now {
  box-shadow: inset 3px 0 0 var(--act);
  padding-inline-start: 8px;
}

svg {
  border: 1px solid var(--ink);
  background: var(--sheet);
}

small {
  display: block;
  font-size: 0.875rem;
  font-weight: 400;
  color: var(--ink-2);
}

.words {
  line-height: 1.25;
}

.word-act,
.small {
  justify-self: end;
}
</style>
