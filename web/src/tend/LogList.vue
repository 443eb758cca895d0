<script setup lang="ts">
import { computed, ref } from 'vue'
import type { LogTold } from '@/api/client'
import type { Act } from '@/api/outbox/act'
import type { Tended } from '@/api/client'
import { glyphOf } from './glyphs'
import { useLogWords } from './useLogWords'

/** What happened to a heap, newest first; what was written here and waits stands on top. */
const { log, pending, heap } = defineProps<{
  heap: string
  log: LogTold[]
  pending: { act: Act; what: Tended; note: string | null }[]
}>()
const emit = defineEmits<{ change: [entry: LogTold]; back: [entry: LogTold] }>()
const { say, t, told, said } = useLogWords()

/** What is in sight before all of it is asked for. */
const FIRST = 12
const isAll = ref(false)
/** A plan made anew and a layer are of build day, told in one line. */
const LAYERS = ['laid', 'planned']
/** What is told, each with how: said in words only once it is in sight. */
const rows = computed(() => {
  const layers = log.filter(({ kind }) => kind === 'laid').length
  let isTold = false
  const probes = new Set<string>()
  return log.flatMap(
    (entry): { entry: LogTold; words: () => string; is: 'own' | 'days' | 'build' | 'other' }[] => {
      // The days of a probe are one line; taking one of them back is a matter of the whole list.
      if (entry.pack && entry.pack.source !== 'file' && !isAll.value) {
        const { name } = entry.pack
        if (probes.has(name)) return []
        probes.add(name)
        return [{ entry, words: () => daysOf(name), is: 'days' }]
      }
      if (!LAYERS.includes(entry.kind))
        return [{ entry, words: () => told(entry), is: entry.what || entry.pack ? 'own' : 'other' }]
      if (isTold || entry.kind !== 'laid') return []
      isTold = true
      return [{ entry, words: () => t('tend.builtOf', { n: layers }, layers), is: 'build' }]
    },
  )
})
const shown = computed(() => (isAll.value ? rows.value : rows.value.slice(0, FIRST)).map(rowOf))

/** All days of a probe in one line. */
function daysOf(name: string): string {
  const packs = log.flatMap(({ pack }) => (pack?.name === name && pack.source !== 'file' ? [pack] : []))
  const ranges = packs.flatMap(({ range_c }) => (range_c ? [range_c] : []))
  return told({
    ...log.find(({ pack }) => pack?.name === name)!,
    pack: {
      ...packs[0]!,
      readings: packs.reduce((sum, { readings }) => sum + readings, 0),
      range_c: ranges.length
        ? [Math.min(...ranges.map(([low]) => low!)), Math.max(...ranges.map(([, high]) => high!))]
        : null,
    },
  })
}

function rowOf({ entry, words, is }: (typeof rows.value)[number]) {
  const isNote = entry.what?.kind === 'note'
  return {
    entry,
    words: words(),
    note: isNote ? null : entry.note,
    when: say.time(entry.at),
    who: [entry.by, entry.device].filter(Boolean).join(', '),
    isLate: Date.parse(entry.recorded_at) - Date.parse(entry.at) > 2 * 3_600_000 && !entry.pack,
    photo: entry.kind === 'photo' ? `/api/heaps/${heap}/log/${entry.id}/photo` : null,
    faulty: entry.faulty ? t(`tend.faulty.${entry.faulty}`) : '',
    isBuild: is === 'build',
    isOurs: is === 'own',
  }
}
</script>

<template>
  <ul class="log">
    <li v-for="{ act, what, note } in pending" :key="act.id" class="waits">
      <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
        <path :d="glyphOf(what.kind)" />
      </svg>
      <div>
        <p>{{ said(what, note) }}</p>
        <p class="quiet small">
          {{ say.time(act.at) }}, {{ t(act.trouble ? 'waits.needsWord' : 'waits.signal') }}
        </p>
      </div>
    </li>
    <li v-for="row in shown" :key="row.entry.id">
      <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
        <path :d="glyphOf(row.entry.kind)" />
      </svg>
      <div>
        <p>{{ row.words }}</p>
        <p v-if="row.note">{{ row.note }}</p>
        <p v-if="row.faulty" class="faulty small">{{ row.faulty }}</p>
        <a v-if="row.photo" :href="row.photo" target="_blank" rel="noopener">
          <img :src="row.photo" :alt="row.note ?? t('tend.photoOf', { when: row.when })" loading="lazy" />
        </a>
        <p class="quiet small">
          {{ row.when }}<template v-if="row.who">, {{ row.who }}</template
          ><template v-if="row.isLate">, {{ t('tend.late') }}</template>
        </p>
      </div>
      <div v-if="row.isOurs" class="row-acts" data-deed="work">
        <button
          v-if="row.entry.what && row.entry.kind !== 'photo'"
          type="button"
          class="word-act"
          :aria-label="t('tend.changeNamed', { what: row.words })"
          @click="emit('change', row.entry)"
        >
          {{ t('tend.change') }}
        </button>
        <button
          type="button"
          class="word-act"
          :aria-label="t('tend.takeBackNamed', { what: row.words })"
          @click="emit('back', row.entry)"
        >
          {{ t('tend.takeBack') }}
        </button>
      </div>
      <RouterLink v-else-if="row.isBuild" :to="`/build/${heap}`" class="row-acts">
        {{ t('build.view') }}
      </RouterLink>
    </li>
  </ul>
  <button
    v-if="isAll || rows.length > FIRST || log.length > rows.length"
    type="button"
    class="word-act"
    @click="isAll = !isAll"
  >
    {{ isAll ? t('tend.fewer') : t('tend.allOf', { n: log.length }) }}
  </button>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) auto;
  gap: 4px 10px;
  align-items: start;
  padding: 9px 0;
  border-bottom: 1px solid var(--line);
}

svg {
  margin-top: 2px;
}

path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
  stroke-linecap: round;
  stroke-linejoin: round;
}

p {
  overflow-wrap: anywhere;
}

.waits {
  padding-inline-start: 8px;
  border-inline-start: 3px solid var(--act);
  background: var(--tint);
}

.faulty {
  color: var(--alarm);
}

img {
  display: block;
  width: min(260px, 100%);
  aspect-ratio: 4 / 3;
  margin: 4px 0;
  object-fit: cover;
  background: var(--paper-2);
}

.row-acts {
  display: flex;
  gap: 16px;
}

a.row-acts {
  min-height: 44px;
  align-items: center;
}

@media (max-width: 559px) {
  .row-acts {
    grid-column: 2 / -1;
  }

  .row-acts .word-act {
    min-height: 36px;
  }
}
</style>
