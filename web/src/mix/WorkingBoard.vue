<script setup lang="ts">
import { computed } from 'vue'
import type { RecipeItem, WorkingLine } from '@/api/client'
import { useSay } from '@/words/useSay'
import { blocksOf, letters, withNumbers } from './board'

/** The lines that lead to a figure: each formula once, the materials' numbers under it, then what the letters mean. */
const {
  lines,
  names,
  items = [],
} = defineProps<{
  lines: WorkingLine[]
  names: string[]
  /** The items the lines are about, for the tests their figures rest on. */
  items?: RecipeItem[]
}>()

const say = useSay()
const { t } = say

const blocks = computed(() => blocksOf(lines))

const legend = computed(() => {
  const symbols = new Set<string>()
  for (const line of lines) for (const input of line.inputs) symbols.add(input.symbol.replace(/^Σ/, ''))
  return [...symbols].map((symbol) => ({ symbol, meaning: t(`working.letters.${symbol}`) }))
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
  const item = line.item == null ? undefined : items[line.item]
  const test = item?.tests?.find((one) => one.figure === TESTED[symbol])
  return test && t('origin.tested', { test: t(`test.${test.test}`), day: say.day(test.on) })
}

const result = (line: WorkingLine) => `${say.exact(line.result)}${line.unit ? ` ${line.unit}` : ''}`
</script>

<template>
  <section v-for="(block, at) in blocks" :key="at">
    <h3>{{ block.symbol }} = {{ letters(block.formula) }}</h3>
    <dl>
      <div v-for="(line, index) in block.lines" :key="index">
        <dt v-if="line.item != null">{{ names[line.item] }}</dt>
        <dd>
          {{ withNumbers(line, say.exact) }} = <b>{{ result(line) }}</b>
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
</template>

<style scoped>
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
