<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answered, api, type WorkingLine } from '@/api/client'
import { key } from '@/api/keys'
import StateNote from '@/kit/StateNote.vue'
import { useBench } from '@/mix/useBench'
import { useDraft } from '@/mix/draft'
import { useSay } from '@/words/useSay'
import { blocksOf, letters, withNumbers } from '@/mix/board'
import WallFrame from './WallFrame.vue'
import { useSteps } from './useSteps'

/** A sum on the board before a room: its formula, then its numbers, then what comes out. */
const emit = defineEmits<{ leave: [] }>()
const say = useSay()
const { t } = say
const store = useDraft()
const { answer, request } = useBench()

const figure = ref('c_n')
const {
  data,
  error,
  refetch: retry,
} = useQuery({
  queryKey: key('working', () => request.value.recipe),
  queryFn: ({ signal }) => answered(api.POST('/api/working', { body: request.value.recipe, signal })),
  // What has no nitrogen has no sums.
  enabled: computed(() => answer.value?.mix != null),
})
const workings = computed(() => data.value?.workings ?? [])
const lines = computed(() => workings.value.find((one) => one.figure === figure.value)?.lines ?? [])
const blocks = computed(() => blocksOf(lines.value))
/** Of each formula: with letters and numbers, then with its result. */
const total = computed(() => Math.max(1, blocks.value.length * 2))
const { at, next, back } = useSteps(total, () => emit('leave'))
const block = computed(() => blocks.value[Math.floor(at.value / 2)])
const isTold = computed(() => at.value % 2 === 1)

const names = computed(() => store.draft.items.map((part) => say.nameOf(part.material, part.label)))
const exact = (value: number) => say.exact(value)
const result = (line: WorkingLine) => `${exact(line.result)}${line.unit ? ` ${line.unit}` : ''}`
const symbols = computed(() => [
  ...new Set(
    block.value?.lines.flatMap(({ inputs }) => inputs.map(({ symbol }) => symbol.replace(/^Σ/, ''))),
  ),
])
</script>

<template>
  <WallFrame
    :over="t(`working.figure.${figure}`)"
    :title="block ? `${block.symbol} = ${letters(block.formula)}` : t('working.title')"
    :at="at"
    :total="total"
    @next="next"
    @back="back"
    @leave="emit('leave')"
  >
    <p v-if="answer && !answer.mix">{{ t('bench.noNitrogen') }}</p>
    <StateNote v-else-if="!data" :error="error" @retry="retry" />
    <template v-else>
      <dl v-if="block">
        <div v-for="(line, index) in block.lines" :key="index">
          <dt v-if="line.item != null">{{ names[line.item] }}</dt>
          <dd>
            {{ withNumbers(line, exact) }} =
            <b :class="{ hidden: !isTold }">{{ isTold ? result(line) : '?' }}</b>
          </dd>
        </div>
      </dl>
      <p class="legend">
        <span v-for="symbol in symbols" :key="symbol">
          <b>{{ symbol }}</b> {{ t(`working.letters.${symbol}`) }}
        </span>
      </p>
      <p class="which">
        <label for="wall-figure">{{ t('wall.which') }}</label>
        <select id="wall-figure" v-model="figure" @change="at = 0">
          <option v-for="one in workings" :key="one.figure" :value="one.figure">
            {{ t(`working.figure.${one.figure}`) }}
          </option>
        </select>
      </p>
    </template>
  </WallFrame>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 13em), 1fr));
  gap: 0 4vw;
  margin: 0;
}

dl > div {
  padding: 6px 0 8px;
  border-bottom: 1.5px solid var(--line);
}

dt {
  color: var(--ink-2);
}

dd {
  margin: 0;
  font-size: clamp(1.5rem, 2.9vw, 3.2rem);
}

dd b {
  font-size: max(53.4px, 4.2vw);
  line-height: 1.1;
}

.hidden {
  display: inline-block;
  min-width: 2.4ch;
  border: 4px dashed var(--ink);
  color: var(--ink-2);
  text-align: center;
}

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 28px;
  margin-top: 16px;
  font-size: 0.75em;
  color: var(--ink-2);
}

.which {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-top: 16px;
  font-size: 1.125rem;
}

.which select {
  width: auto;
}
</style>
