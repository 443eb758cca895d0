<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { answered, api, type BenchRequest, type CorrectChoice } from '@/api/client'
import { key } from '@/api/keys'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import SideDrawer from '@/kit/SideDrawer.vue'
import StateNote from '@/kit/StateNote.vue'
import WorkingBoard from './WorkingBoard.vue'
import type { StepLot } from './useBench'
import { useMaterials } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { useSlip } from '@/kit/useSlip'
import { useStock } from '@/stock/useStock'
import { useDraft } from './draft'

/** For each thing wrong with the mix: what would put it right, one material at a time, and how much of it. */
const { request, stepLots } = defineProps<{ request: BenchRequest; stepLots: StepLot[] }>()
const open = defineModel<boolean>('open', { required: true })

const say = useSay()
const { t } = say
const store = useDraft()
const slip = useSlip()
const { measures } = useStock()
const { hatchOf } = useMaterials()

/** What common things would be fetched in. */
const barrow = computed(() => measures.value?.find((one) => one.glyph === 'barrow') ?? measures.value?.at(-1))

const body = computed(() => ({
  format: 'zymarch-correct/1',
  recipe: request.recipe,
  with: (request.steps ?? []).map((step) => ({ with: step.with, can_add: step.can_add })),
  fetched_in_l: barrow.value?.litres ?? null,
}))
const { data, error, refetch } = useQuery({
  queryKey: key('correct', body),
  queryFn: ({ signal }) => answered(api.POST('/api/correct', { body: body.value, signal })),
  enabled: computed(() => open.value && request.recipe.items.length > 0),
  placeholderData: keepPreviousData,
})

const faults = computed(() =>
  (data.value?.faults ?? []).map(({ fault, choices }) => {
    const rows = choices.map((choice) => rowOf(choice))
    return {
      fault,
      groups: [
        { key: 'onHand', rows: rows.filter(({ isOnHand }) => isOnHand) },
        { key: 'fetch', rows: rows.filter(({ isOnHand }) => !isOnHand) },
      ].filter((group) => group.rows.length > 0),
    }
  }),
)

function rowOf(choice: CorrectChoice) {
  const step = choice.step == null ? null : stepLots[choice.step]
  const isWater = !choice.material
  const name = isWater ? t('correct.water') : say.nameOf(choice.material!, step?.part.label).toLowerCase()
  const count = choice.count ?? 0
  const amount = isWater
    ? say.water(choice.litres)
    : step
      ? say.amount(Math.round(count * step.step * 1e6) / 1e6, step.part.unit, step.part.measure_id)
      : barrow.value
        ? say.amount(Math.round(count * 2) / 2, 'measure', barrow.value.id)
        : say.kg(choice.kg)
  return {
    choice,
    step,
    name,
    amount,
    isOnHand: isWater || !!step,
    hatch: isWater ? 'hatch-water' : hatchOf(choice.material!),
    then: choice.then_water_l > 0 ? t('correct.then', { water: say.water(choice.then_water_l) }) : '',
    after: t('correct.after', {
      ratio: say.whole(choice.after.c_n),
      water: say.whole(choice.after.moisture_pct),
      air: say.whole(choice.after.free_air_space_pct),
    }),
  }
}
type Row = ReturnType<typeof rowOf>

function add({ choice, step, amount, name }: Row) {
  if (step) {
    const more = Math.round((choice.count ?? 0) * step.step * 1e6) / 1e6
    store.add(step, more, choice.then_water_l, measures.value ?? [])
  } else {
    store.setWater(store.draft.water_l + Math.round(choice.litres))
  }
  slip.said({ text: t('correct.added', { amount, name }), undoLabel: t('app.undo'), undo: store.undo })
}

const shown = ref<string | null>(null)
const keyOf = (fault: string, row: Row) => `${fault} ${row.choice.step ?? row.choice.material ?? ''}`
</script>

<template>
  <SideDrawer v-model:open="open" :title="t('correct.title')">
    <StateNote v-if="!data" :error="error" @retry="refetch" />
    <p v-else-if="!faults.length">{{ t('correct.right') }}</p>
    <div v-else class="faults">
      <section v-for="{ fault, groups } in faults" :key="fault" :aria-label="t(`correct.fault.${fault}`)">
        <h3 class="ruled">{{ t(`correct.fault.${fault}`) }}</h3>
        <p v-if="!groups.length">{{ t('correct.nothing') }}</p>
        <template v-for="group in groups" :key="group.key">
          <h4>{{ t(`correct.${group.key}`) }}</h4>
          <ul>
            <li v-for="row in group.rows" :key="keyOf(fault, row)">
              <HatchSwatch :hatch="row.hatch" :size="36" />
              <div>
                <p>
                  <b>{{ row.amount }}</b> {{ row.name }}<span v-if="row.then">, {{ row.then }}</span>
                </p>
                <p class="quiet small">
                  {{ row.after }}<b v-if="row.choice.puts_right">, {{ t('correct.right_after') }}</b>
                </p>
                <button
                  type="button"
                  class="word-act small"
                  :aria-expanded="shown === keyOf(fault, row)"
                  :aria-label="t('correct.workingNamed', { name: row.name })"
                  @click="shown = shown === keyOf(fault, row) ? null : keyOf(fault, row)"
                >
                  {{ t('correct.working') }}
                </button>
              </div>
              <Button
                v-if="row.isOnHand"
                :label="t('correct.add')"
                variant="outlined"
                :aria-label="t('correct.addNamed', { amount: row.amount, name: row.name })"
                @click="add(row)"
              />
              <div v-if="shown === keyOf(fault, row)" class="board">
                <WorkingBoard :lines="[row.choice.line]" :names="[]" />
              </div>
            </li>
          </ul>
        </template>
      </section>
      <p class="quiet small">{{ t('correct.foot') }}</p>
    </div>
  </SideDrawer>
</template>

<style scoped>
.faults {
  display: flex;
  flex-direction: column;
  gap: 20px;
}

h3 {
  font-size: 1.125rem;
}

h4 {
  margin: 10px 0 0;
  font-size: 0.875rem;
  font-weight: 400;
  color: var(--ink-2);
}

li {
  display: grid;
  grid-template-columns: 36px minmax(0, 1fr) auto;
  gap: 4px 12px;
  align-items: start;
  padding: 8px 0 4px;
  border-bottom: 1px solid var(--line);
}

.board {
  grid-column: 1 / -1;
}
</style>
