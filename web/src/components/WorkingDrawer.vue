<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import Drawer from 'primevue/drawer'
import Select from 'primevue/select'
import { computed } from 'vue'
import { answered, api, type Recipe, type WorkingLine } from '@/api/client'
import StateNote from '@/components/StateNote.vue'
import { useSay } from '@/composables/useSay'
import { useUnits } from '@/composables/useUnits'

/** The sum behind a figure, as a trainer would write it on a board. */
const { recipe, names } = defineProps<{ recipe: Recipe; names: string[] }>()
const figure = defineModel<string | null>({ required: true })

const say = useSay()
const { t } = say
const units = useUnits()

const { data, error, refetch } = useQuery({
  queryKey: ['working', () => recipe],
  queryFn: ({ signal }) => answered(api.POST('/api/working', { body: recipe, signal })),
  enabled: computed(() => figure.value !== null),
})

const choices = computed(() =>
  (data.value?.workings ?? []).map((one) => ({
    value: one.figure,
    label: t(`working.figure.${one.figure}`),
  })),
)
const working = computed(() => data.value?.workings.find((one) => one.figure === figure.value))

/** Lines of the same sum for one material after another stand together under its formula. */
const blocks = computed(() => {
  const found: { formula: string; symbol: string; lines: WorkingLine[] }[] = []
  for (const line of working.value?.lines ?? []) {
    const last = found.at(-1)
    if (last && last.formula === line.formula && last.symbol === line.symbol) last.lines.push(line)
    else found.push({ formula: line.formula, symbol: line.symbol, lines: [line] })
  }
  return found
})

const letters = (formula: string) => formula.replace(/[{}]/g, '')

function withNumbers(line: WorkingLine): string {
  return line.inputs.reduce(
    (text, input) =>
      text.replaceAll(`{${input.symbol}}`, `${say.exact(input.value)}${input.unit ? ` ${input.unit}` : ''}`),
    line.formula,
  )
}

function meaning(symbol: string): string {
  return t(`working.letters.${symbol.replace(/^Σ/, '')}`)
}

const legend = computed(() => {
  const symbols = new Set<string>()
  for (const line of working.value?.lines ?? [])
    for (const input of line.inputs) symbols.add(input.symbol.replace(/^Σ/, ''))
  return [...symbols].map((symbol) => ({ symbol, meaning: meaning(symbol) }))
})

function origins(line: WorkingLine): string {
  return line.inputs
    .filter((input) => input.origin && input.symbol !== 'q' && input.symbol !== 'W')
    .map((input) => `${input.symbol}: ${tested(line, input.symbol) ?? t(`origin.${input.origin}`)}`)
    .join(', ')
}

/** The figure that a letter stands for, where a test can give it. */
const TESTED: Record<string, string> = { m: 'moisture_pct', ρ: 'density_kg_l', s: 'settle' }

/** Of a measured figure: by which test, and when. */
function tested(line: WorkingLine, symbol: string): string | undefined {
  const item = line.item == null ? undefined : recipe.items[line.item]
  const test = item?.tests?.find((one) => one.figure === TESTED[symbol])
  return test && t('origin.tested', { test: t(`test.${test.test}`), day: say.day(test.on) })
}

const result = (line: WorkingLine) => `${say.exact(line.result)}${line.unit ? ` ${line.unit}` : ''}`
</script>

<template>
  <Drawer
    :visible="figure !== null"
    position="right"
    class="working-drawer"
    :header="t('working.title')"
    :pt="{
      root: { 'aria-label': t('working.title') },
      pcCloseButton: { root: { 'aria-label': t('app.close') } },
    }"
    @update:visible="(open: boolean) => !open && (figure = null)"
  >
    <StateNote v-if="!working" :error="error" @retry="refetch" />
    <div v-else class="board">
      <Select
        v-model="figure"
        :options="choices"
        option-label="label"
        option-value="value"
        :aria-label="t('working.title')"
        scroll-height="420px"
      />
      <p class="quiet">{{ t(`working.note.${working.figure}`) }}</p>
      <p v-if="units.system.value === 'us'" class="quiet small">{{ t('working.metric') }}</p>
      <section v-for="(block, at) in blocks" :key="at">
        <h3>{{ block.symbol }} = {{ letters(block.formula) }}</h3>
        <dl>
          <div v-for="(line, index) in block.lines" :key="index">
            <dt v-if="line.item != null">{{ names[line.item] }}</dt>
            <dd>
              {{ withNumbers(line) }} = <b>{{ result(line) }}</b>
              <small v-if="origins(line)">{{ origins(line) }}</small>
            </dd>
          </div>
        </dl>
      </section>
      <dl class="legend">
        <div v-for="entry in legend" :key="entry.symbol">
          <dt>{{ entry.symbol }}</dt>
          <dd>{{ entry.meaning }}</dd>
        </div>
      </dl>
    </div>
  </Drawer>
</template>

<style>
.p-drawer-right .working-drawer.p-drawer {
  width: min(620px, 100vw);
}
</style>

<style scoped>
.board {
  display: flex;
  flex-direction: column;
  gap: 18px;
  font-size: 1.0625rem;
}

h3 {
  padding-top: 6px;
  border-top: 1.5px solid var(--ink);
  font-size: 1.1875rem;
  font-weight: 660;
}

dl > div {
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}

dt {
  font-size: 0.9375rem;
  color: var(--ink-2);
}

dd {
  overflow-wrap: anywhere;
}

dd small {
  display: block;
  font-size: 0.8125rem;
  color: var(--ink-2);
}

.legend > div {
  display: grid;
  grid-template-columns: 56px 1fr;
  padding: 2px 0;
  border: 0;
  font-size: 0.9375rem;
}
</style>
