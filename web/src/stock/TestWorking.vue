<script setup lang="ts">
import type { WorkingLine } from '@/api/client'
import { useSay } from '@/words/useSay'

/** The sum behind a test, as it would stand on a board. */
const { lines } = defineProps<{ lines: WorkingLine[] }>()
const say = useSay()
const { t } = say

const letters = (formula: string) => formula.replace(/[{}]/g, '')
const number = (value: number, unit: string) => `${say.exact(value)}${unit ? ` ${unit}` : ''}`
const withNumbers = (line: WorkingLine) =>
  line.inputs.reduce(
    (text, input) => text.replaceAll(`{${input.symbol}}`, number(input.value, input.unit)),
    line.formula,
  )
</script>

<template>
  <details>
    <summary class="word-act">{{ t('bench.working') }}</summary>
    <dl>
      <div v-for="(line, index) in lines" :key="index">
        <dt>{{ line.symbol }} = {{ letters(line.formula) }}</dt>
        <dd>
          {{ withNumbers(line) }} = <b>{{ number(line.result, line.unit) }}</b>
        </dd>
      </div>
    </dl>
  </details>
</template>

<style scoped>
summary {
  padding: 10px 0;
}

dl > div {
  padding: 4px 0 10px;
}

dt {
  color: var(--ink-2);
}

dd {
  font-size: 1.125rem;
}
</style>
