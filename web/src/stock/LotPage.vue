<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { FieldTest } from '@/api/client'
import CautionList from './CautionList.vue'
import LotDialog from './LotDialog.vue'
import LotFigures from './LotFigures.vue'
import LotHistory from './LotHistory.vue'
import LotTests from './LotTests.vue'
import StateNote from '@/kit/StateNote.vue'
import WaitsHere from '@/waiting/WaitsHere.vue'
import { useAttempt } from '@/kit/useAttempt'
import { useMaterials } from '@/farm/useFarm'
import { useFreshness } from './useFreshness'
import { useLot } from './useLot'
import { useSay } from '@/words/useSay'
import { useLotChanges } from './useStock'

/** One lot: its figures and where they came from, the tests on it, what came and went. */
const { id } = defineProps<{ id: string }>()

const say = useSay()
const { t } = say
const router = useRouter()
const { undoable } = useAttempt()
const { byId } = useMaterials()
const { remove } = useLotChanges()
const fresh = useFreshness()
const { lot, isGone, error, retry, history, tests, happened, undoEvent, removeTest } = useLot(
  computed(() => id),
)

const isEditing = ref(false)
const material = computed(() => (lot.value ? (byId.value.get(lot.value.material) ?? null) : null))
const name = computed(() => (lot.value ? say.nameOf(lot.value.material, lot.value.label) : ''))

const headline = computed(() => {
  if (!lot.value) return ''
  const { amount, unit, measure_id } = lot.value
  return t('lotPage.headline', {
    amount: say.amount(amount, unit, measure_id),
    name: say.within(name.value),
    keeps: fresh.keeps(lot.value),
  })
})

const under = computed(() => {
  if (!lot.value) return ''
  const { kg, litres, gathered_on, created_at, age_days } = lot.value
  return t('lotPage.under', {
    kg: say.kg(kg),
    litres: say.litres(litres),
    day: say.day(gathered_on ?? created_at.slice(0, 10)),
    age: t('unit.days', age_days),
  })
})

async function takeOff() {
  const gone = lot.value
  if (!gone) return
  await undoable(
    t('stock.removed', { name: name.value }),
    () => remove.mutateAsync(gone),
    { what: 'lots', id: gone.id },
    t('stock.back', { name: name.value }),
  )
  void router.push('/stock')
}

function dropTest(test: FieldTest) {
  void undoable(t('tests.removed'), () => removeTest.mutateAsync(test), { what: 'tests', id: test.id })
}
</script>

<template>
  <StateNote v-if="!lot && !isGone" :error="error" @retry="retry" />
  <div v-else-if="isGone">
    <h1>{{ t('lotPage.gone') }}</h1>
    <p>
      <RouterLink to="/stock">{{ t('lotPage.toStock') }}</RouterLink>
    </p>
  </div>
  <template v-else-if="lot">
    <p class="crumb">
      <RouterLink to="/stock">{{ t('nav.stock') }}</RouterLink>
    </p>
    <header class="page-head">
      <div>
        <h1>{{ headline }}</h1>
        <p>{{ under }}</p>
        <p v-if="fresh.isPast(lot)" class="rescue">{{ fresh.rescue(lot) }}</p>
        <p v-if="lot.must_not_go_in" class="rescue">{{ t('lotPage.refused') }}</p>
        <p>
          <RouterLink :to="`/chain/lot/${lot.id}`">{{ t('chain.ofLot') }}</RouterLink>
        </p>
      </div>
      <div class="acts">
        <ActButton data-deed="work" variant="outlined" :label="t('stock.remove')" @click="takeOff" />
        <ActButton data-deed="work" variant="outlined" :label="t('stock.edit')" @click="isEditing = true" />
      </div>
    </header>
    <WaitsHere
      :kinds="['test-add', 'test-change', 'test-remove', 'lot-happened', 'lot-unhappened', 'lot-change']"
      :of="lot.id"
    />
    <div class="columns">
      <LotFigures :lot="lot" :material="material" />
      <LotTests :lot="lot" :tests="tests ?? []" @remove="dropTest" />
      <LotHistory
        :lot="lot"
        :events="history ?? []"
        :happened="happened.mutateAsync"
        :undo="undoEvent.mutateAsync"
      />
      <section v-if="material" :aria-label="t('lotPage.minding')">
        <h2 class="ruled">{{ t('lotPage.minding') }}</h2>
        <CautionList :material="material" />
      </section>
    </div>
    <LotDialog v-model:open="isEditing" :lot="lot" />
  </template>
</template>

<style scoped>
.crumb {
  margin-bottom: 4px;
}

.rescue {
  margin-top: 8px;
  padding-inline-start: 10px;
  border-inline-start: 3px solid var(--alarm);
  color: var(--ink);
}
</style>
