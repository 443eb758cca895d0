<script setup lang="ts">
import { computed } from 'vue'
import type { Lot, PrepareAnswer, StarterPlan } from '@/api/client'
import { usePrepare } from './usePrepare'
import { useSay } from '@/words/useSay'
import { useDraft } from '@/mix/draft'

/** The starters: what each is good for, how much of it, whether it can be ready, what goes in and what is on hand. */
const { answer } = defineProps<{ answer: PrepareAnswer }>()

const say = useSay()
const { t } = say
const store = useDraft()
const { rows, standingFor } = usePrepare()

const known = computed(() => new Map((rows.value ?? []).map((row) => [row.id, row])))

/** Two figures are as many as these amounts have. */
const amount = (value: number, unit: string) => say.fineOf(value, unit === 'kg' ? 'mass' : 'volume')
function range([low = 0, high = 0]: number[], unit: string): string {
  const [from, to] = [amount(low, unit), amount(high, unit)]
  return from === to
    ? to
    : t('prepare.range', {
        low: from.split(' ').at(-1) === to.split(' ').at(-1) ? from.replace(/ \D+$/, '') : from,
        high: to,
      })
}
/** What the ingredients are for: the middle of the range. */
const middle = ({ make: [low = 0, high = 0], unit }: StarterPlan) => amount((low + high) / 2, unit)

/** Whether it can be ready, and when. */
function when({ timing, start_on, ready_on }: StarterPlan): string {
  if (start_on === ready_on) return t('prepare.sameDay')
  return t(`prepare.timing.${timing}`, { start: say.day(start_on), ready: say.day(ready_on) })
}

/** What there is of an ingredient, or where it comes from. */
function stockOf(words: string[], id: string): string {
  if (id === 'water') return ''
  if (!words.length) return t('prepare.bought')
  const lots = standingFor(words)
  if (!lots.length) return t('prepare.notOnHand')
  const said = (lot: Lot) =>
    `${say.amount(lot.amount, lot.unit, lot.measure_id)} ${say.nameWithin(lot.material, lot.label)}`
  return t('prepare.onHand', { lots: lots.slice(0, 2).map(said).join(', ') })
}

/** Less than this is not worth making, in its unit: a spoonful. */
const SPOON = 0.005
const starters = computed(() =>
  answer.starters.filter(({ purpose, make }) => purpose === 'build' && (make[1] ?? 0) >= SPOON),
)
</script>

<template>
  <section :aria-label="t('prepare.starters')">
    <header class="ruled">
      <h2>{{ t('prepare.starters') }}</h2>
    </header>
    <p class="quiet">{{ t('prepare.honest') }}</p>
    <ul>
      <li v-for="one in starters" :key="one.id" :class="{ chosen: one.chosen }">
        <label class="take">
          <input type="checkbox" :checked="one.chosen" @change="store.toggleStarter(one.id)" />
          <b>{{ t(`starter.${one.id}.name`) }}</b>
          <span class="much">{{ range(one.make, one.unit) }}</span>
        </label>
        <p class="when" :class="one.timing">{{ when(one) }}</p>
        <details :open="one.chosen">
          <summary class="word-act">
            {{ t('prepare.more', { name: t(`starter.${one.id}.name`).toLowerCase() }) }}
          </summary>
          <p>{{ t(`starter.${one.id}.what`) }}</p>
          <p class="quiet">{{ t(`prepare.evidence.${known.get(one.id)?.evidence ?? 'some'}`) }}</p>
          <table v-if="one.ingredients.length > 1">
            <caption>
              {{
                t('prepare.goesIn', { much: middle(one) })
              }}
            </caption>
            <tbody>
              <tr v-for="part in one.ingredients" :key="part.id">
                <th scope="row">{{ t(`ingredient.${part.id}`) }}</th>
                <td class="end">{{ range(part.amount, part.unit) }}</td>
                <td class="quiet small">{{ stockOf(part.stock, part.id) }}</td>
              </tr>
            </tbody>
          </table>
          <p v-else-if="one.ingredients[0]" class="small">
            {{ stockOf(one.ingredients[0].stock, one.ingredients[0].id) }}
          </p>
          <p v-if="one.use_by" class="small">{{ t('prepare.useBy', { day: say.day(one.use_by) }) }}</p>
          <ul class="hazards">
            <li v-for="hazard in known.get(one.id)?.hazards ?? []" :key="hazard">
              {{ t(`hazard.${hazard}`) }}
            </li>
          </ul>
        </details>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section > ul > li {
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}

.take {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 44px;
  cursor: pointer;
}

.take input {
  flex: none;
  width: 24px;
  height: 24px;
  accent-color: var(--act);
}

.much {
  margin-inline-start: auto;
  white-space: nowrap;
}

.when {
  padding-inline-start: 36px;
  color: var(--ink-2);
}

.too-late,
.just-in-time {
  color: var(--alarm);
  font-weight: 600;
}

details {
  padding-inline-start: 36px;
}

details p {
  margin-bottom: 6px;
}

table {
  width: 100%;
  border-collapse: collapse;
  margin-bottom: 8px;
}

caption {
  padding: 4px 0;
  text-align: start;
  font-size: 0.875rem;
  color: var(--ink-2);
}

th,
td {
  padding: 5px 6px 5px 0;
  border-top: 1px solid var(--line);
  text-align: start;
  font-weight: 400;
}

.end {
  text-align: end;
  white-space: nowrap;
}

.hazards li {
  margin-top: 4px;
  padding-inline-start: 10px;
  border-inline-start: 3px solid var(--alarm);
  font-size: 0.9375rem;
}

@media (max-width: 859px) {
  .when,
  details {
    padding-inline-start: 0;
  }

  /* What is on hand stands under the ingredient. */
  tr {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    border-top: 1px solid var(--line);
  }

  th,
  td {
    border: 0;
  }

  td:last-child {
    grid-column: 1 / -1;
    padding-top: 0;
  }

  td:last-child:empty {
    display: none;
  }
}
</style>
