<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import ActButton from '@/kit/ActButton.vue'
import { computed, ref } from 'vue'
import { answered, api, type BenchRequest, type CorrectChoice, type CorrectPart } from '@/api/client'
import { key } from '@/api/keys'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import SideDrawer from '@/kit/SideDrawer.vue'
import StateNote from '@/kit/StateNote.vue'
import WorkingBoard from './WorkingBoard.vue'
import { useStepLots } from './useStepLots'
import { useMeasureList, useMonth, useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { useSlip } from '@/kit/useSlip'
import { useDraft } from './draft'
import { itemOf, measuresOf } from './recipe'

/** For each thing wrong with the mix: what would put it right, and how much of it. */
const { request } = defineProps<{ request: BenchRequest }>()
const open = defineModel<boolean>('open', { required: true })

const stepLots = useStepLots()

const say = useSay()
const { t } = say
const store = useDraft()
const slip = useSlip()
const { measures } = useMeasureList()
const { hatchOf } = useNames()
const month = useMonth()

/** What common things would be fetched in. */
const barrow = computed(() => measures.value?.find((one) => one.glyph === 'barrow') ?? measures.value?.at(-1))

const body = computed(() => ({
  format: 'zymarch-correct/1',
  // In stock there may be containers that none of the mix is counted in.
  recipe: { ...request.recipe, measures: measuresOf(stepLots.value.map(({ part }) => part)) },
  with: stepLots.value.map(({ part, lot, step, canAdd }) => ({
    with: itemOf(part, step, lot?.age_days),
    can_add: canAdd,
  })),
  fetched_in_l: barrow.value?.litres ?? null,
  air_c: month.value?.mean_c ?? null,
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

/** What of the mix something is done to. */
const namesOf = (items: number[]) =>
  items
    .map((at) => request.recipe.items[at])
    .map((item, at) => (item ? say.nameWithin(item.material, stepLots.value[items[at]!]?.part.label) : ''))
    .join(', ')

/** Something that goes in: so many steps of it, or so much to be fetched. */
function partOf({ step, material, count, kg }: CorrectPart) {
  const lot = step == null ? null : stepLots.value[step]
  const amount = lot
    ? say.amount(Math.round((count ?? 0) * lot.step * 1e6) / 1e6, lot.part.unit, lot.part.measure_id)
    : barrow.value
      ? say.amount(Math.round((count ?? 0) * 2) / 2, 'measure', barrow.value.id)
      : say.kg(kg)
  const name = say.nameWithin(material, lot?.part.label)
  return { lot, count: count ?? 0, what: t('correct.of', { amount, name }) }
}

function daysOf([low, high]: number[]): string {
  const [from, to] = [Math.max(1, Math.round(low ?? 1)), Math.max(1, Math.ceil((high ?? 1) - 0.25))]
  return to <= 1 ? t('correct.dayN') : t('correct.days', { low: from, high: to })
}

/** What is done, in words. */
function rowOf(choice: CorrectChoice) {
  const { act, material, and, items = [], days, then_water_l } = choice
  const first = material ? partOf({ ...choice, material }) : null
  const second = and ? partOf(and) : null
  const isWater = act === 'water'
  const what = first
    ? second
      ? t('correct.and', { first: first.what, second: second.what })
      : first.what
    : isWater
      ? t('correct.of', { amount: say.water(choice.litres), name: t('correct.water') })
      : t(`correct.act.${act}`, { names: namesOf(items), water: say.water(choice.kg) })
  const isOnHand = !first || (!!first.lot && (!second || !!second.lot))
  const then = [
    then_water_l > 0 ? t('correct.then', { water: say.water(then_water_l) }) : '',
    days ? daysOf(days) : '',
  ]
  return {
    choice,
    first,
    second,
    what,
    isOnHand,
    /** What can be done at a tap; drying takes its days first. */
    canAdd: isWater || act === 'less-water' || (!!first && isOnHand),
    hatch: material ? hatchOf(material) : items.length ? hatchOfItem(items[0]!) : 'hatch-water',
    then: then.filter(Boolean).join(', '),
    after: t('correct.after', {
      ratio: say.whole(choice.after.c_n_counted),
      water: say.whole(choice.after.moisture_pct),
      air: say.whole(choice.after.free_air_space_pct),
    }),
  }
}
type Row = ReturnType<typeof rowOf>

function hatchOfItem(at: number) {
  const item = request.recipe.items[at]
  return item ? hatchOf(item.material) : 'hatch-water'
}

function add({ choice, first, second, what }: Row) {
  const water = Math.round(choice.litres)
  if (choice.act === 'water') store.setWater(store.draft.water_l + water)
  else if (choice.act === 'less-water') store.setWater(Math.max(0, store.draft.water_l - water))
  else {
    const more = [first, second].flatMap((part) =>
      part?.lot ? [{ step: part.lot, amount: Math.round(part.count * part.lot.step * 1e6) / 1e6 }] : [],
    )
    store.addAll(more, choice.then_water_l, measures.value ?? [])
  }
  slip.said({ text: t('correct.added', { what }), undoLabel: t('app.undo'), undo: store.undo })
}

const shown = ref<string | null>(null)
const keyOf = (fault: string, { choice }: Row) =>
  `${fault} ${choice.act} ${choice.step ?? choice.material ?? ''} ${choice.and?.step ?? choice.and?.material ?? ''}`
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
                  <b>{{ row.what }}</b><span v-if="row.then">, {{ row.then }}</span>
                </p>
                <p class="quiet small">
                  {{ row.after }}<b v-if="row.choice.puts_right">, {{ t('correct.right_after') }}</b>
                </p>
                <button
                  v-if="row.choice.line"
                  type="button"
                  class="word-act small"
                  :aria-expanded="shown === keyOf(fault, row)"
                  :aria-label="t('correct.workingNamed', { name: row.what })"
                  @click="shown = shown === keyOf(fault, row) ? null : keyOf(fault, row)"
                >
                  {{ t('correct.working') }}
                </button>
              </div>
              <ActButton
                v-if="row.canAdd"
                :label="t('correct.add')"
                variant="outlined"
                :aria-label="t('correct.addNamed', { what: row.what })"
                @click="add(row)"
              />
              <div v-if="row.choice.line && shown === keyOf(fault, row)" class="board">
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
