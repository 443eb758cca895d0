<script setup lang="ts">
import { computed } from 'vue'
import type { CautionNote } from '@/api/client'
import MethodSelect from '@/plan/MethodSelect.vue'
import { useMethods } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'

/** The method a mix is meant for, and what its materials say to that: refused first. */
const { notes, names, method } = defineProps<{
  method: string | null
  notes: CautionNote[]
  names: string[]
}>()

const say = useSay()
const { methodWithin } = useMethods()
const { t } = say

/** The same caution on several materials is one line. */
const lines = computed(() => {
  const groups = new Map<string, { note: CautionNote; of: string[] }>()
  for (const note of notes) {
    const key = `${note.code} ${note.stance} ${reason(note)}`
    const group = groups.get(key) ?? { note, of: [] }
    group.of.push(names[note.item] ?? '')
    groups.set(key, group)
  }
  return [...groups].map(([key, { note, of }]) => ({
    key,
    stance: note.stance,
    head: t(`stance.${note.stance}`, { name: of.join(', ') }, of.length),
    words: `${reason(note)} ${t(`caution.${note.code}`)}`,
  }))
})

function reason(note: CautionNote): string {
  return t(`reason.${note.reason}`, {
    method: method ? methodWithin(method) : '',
    share: say.whole(note.share_pct ?? 0),
    most: say.whole(note.most_pct ?? 0),
    of: t(note.of_mass ? 'reason.ofMass' : 'reason.ofVolume'),
  })
}
const refused = computed(() => lines.value.filter((line) => line.stance === 'refused'))
const minded = computed(() => lines.value.filter((line) => line.stance !== 'refused'))
</script>

<template>
  <section :aria-label="t('bench.method')">
    <MethodSelect />
    <ul aria-live="polite">
      <li v-for="line in refused" :key="line.key" class="refused">
        <b>{{ line.head }}</b> {{ line.words }}
      </li>
    </ul>
    <details v-if="minded.length" :open="minded.length < 3">
      <summary class="word-act">{{ t('bench.minded', minded.length) }}</summary>
      <ul>
        <li v-for="line in minded" :key="line.key">
          <b>{{ line.head }}</b> {{ line.words }}
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
summary {
  padding: 10px 0;
}

li {
  margin-top: 6px;
  padding-inline-start: 10px;
  border-inline-start: 3px solid var(--line);
  font-size: 0.9375rem;
  line-height: 1.35;
}

.refused {
  border-color: var(--alarm);
}

.refused b {
  color: var(--alarm);
}
</style>
