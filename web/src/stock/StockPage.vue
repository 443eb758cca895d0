<script lang="ts">
import { later, opens } from '@/kit/later'

const lotForm = later(() => import('./LotDialog.vue'))
const pictures = later(() => import('./PictureDrawer.vue'))
const sortedOutForm = later(() => import('./SortedOutDialog.vue'))
</script>

<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import TextInput from '@/kit/TextInput.vue'
import { computed, ref } from 'vue'
import type { BatchPart, Lot, Material, SortedOut } from '@/api/client'
import LatelyList from '@/kit/LatelyList.vue'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import LongList from '@/kit/LongList.vue'
import SentenceField from './SentenceField.vue'
import StateNote from '@/kit/StateNote.vue'
import StockRow from './StockRow.vue'
import { useAttempt } from '@/kit/useAttempt'
import { useIsPhone } from '@/kit/useMedia'
import { useNames } from '@/farm/useFarm'
import { useFreshness } from './useFreshness'
import { useSay } from '@/words/useSay'
import { useSortedOut } from './useSortedOut'
import { useSlip } from '@/kit/useSlip'
import { grouped, GROUPINGS, type Grouping, sifted } from './grouping'
import WaitsHere from '@/waiting/WaitsHere.vue'
import { useLotChanges, useStock } from './useStock'
import { useStepped } from './useStepped'

const say = useSay()
const { t } = say
const { attempt, undoable } = useAttempt()
const slip = useSlip()
const { lots, error, retry } = useStock()
const { add, remove } = useLotChanges()
const { amountOf, step } = useStepped()
const { records, ...sortedOut } = useSortedOut()
const { named, hatchOf } = useNames()
const fresh = useFreshness()

const editing = ref<Lot | null>(null)
const isOpen = ref(false)
const sorting = ref<Material | null>(null)
const isSorting = ref(false)
const isTapping = ref(false)
opens(lotForm, isOpen)
opens(pictures, isTapping)
opens(sortedOutForm, isSorting)
const { part: LotDialog } = lotForm
const { part: PictureDrawer } = pictures
const { part: SortedOutDialog } = sortedOutForm

const isPhone = useIsPhone()

const idOf = ({ id }: Lot) => id
const name = (lot: Lot) => say.nameOf(lot.material, lot.label)

const headline = computed(() => {
  if (!lots.value?.length) return t('stock.none')
  const kg = lots.value.reduce((sum, lot) => sum + lot.kg, 0)
  return t('stock.some', { lots: t('stock.lots', lots.value.length), kg: say.kg(kg) })
})

/** What spoils first, if anything does: it stands on top. */
const first = computed(() => {
  const lot = lots.value?.find((one) => one.amount > 0 && one.days_left != null)
  if (!lot) return ''
  const past = lots.value?.filter(fresh.isPast) ?? []
  if (past.length) {
    const names = past.map((one) => say.within(name(one))).join(', ')
    return t('stock.past', { names })
  }
  return t('stock.first', { name: say.within(name(lot)), keeps: fresh.keeps(lot) })
})

function edit(lot: Lot | null) {
  editing.value = lot
  isOpen.value = true
}

/** Writes down what was said: a lot each. */
async function write(parts: BatchPart[]) {
  const written: { id: string }[] = []
  const done = await attempt(async () => {
    for (const { material, amount, unit, measure_id } of parts)
      written.push(await add.mutateAsync({ material, label: null, amount, unit, measure_id, own: {} }))
  })
  if (!done || !written.length) return
  slip.said({
    text: t('say.lots', written.length),
    undoLabel: t('app.undo'),
    undo: () => void attempt(() => Promise.all(written.map((lot) => remove.mutateAsync(lot)))),
  })
}

/** One form gives way to another: both in the same breath, or the first takes the second's entry of the history with it. */
async function sortOut(material: Material) {
  if (!(await sortedOutForm.fetch())) return
  isOpen.value = false
  sorting.value = material
  isSorting.value = true
}

/** With fewer lots than this there is nothing to sift. */
const FEW = 8
const sought = ref('')
const by = ref<Grouping>('none')
const groups = computed(() =>
  grouped(
    sifted(lots.value ?? [], sought.value, (lot) => [name(lot), say.nameOf(lot.material)]),
    by.value,
    (lot) => named.value.get(lot.material)?.kind,
  ),
)

function takeOff(lot: Lot) {
  void undoable(
    t('stock.removed', { name: name(lot) }),
    () => remove.mutateAsync(lot),
    { what: 'lots', id: lot.id },
    t('stock.back', { name: name(lot) }),
  )
}

function forget(record: SortedOut) {
  void undoable(t('sorted.removed'), () => sortedOut.remove.mutateAsync(record), {
    what: 'sorted-out',
    id: record.id,
  })
}

function sortedWords({ material, label, kg, went_to }: SortedOut): string {
  const what = say.nameOf(material, label)
  return [kg == null ? what : `${what}, ${say.kg(kg)}`, went_to].filter(Boolean).join('; ')
}
</script>

<template>
  <header class="page-head">
    <div>
      <h1>{{ lots ? headline : t('stock.title') }}</h1>
      <p>{{ lots?.length ? first : lots ? t('stock.noneHint') : '' }}</p>
    </div>
    <div class="acts">
      <ActButton v-if="lots?.length" to="/bench" variant="outlined" :label="t('stock.toBench')" />
      <ActButton data-deed="work" variant="outlined" :label="t('stock.add')" @click="edit(null)" />
      <ActButton data-deed="work" :label="t('bench.tap')" @click="isTapping = true" />
    </div>
  </header>
  <SentenceField v-if="lots" data-deed="work" class="sentence" :does="t('say.toStock')" @take="write" />
  <WaitsHere :kinds="['lot-add', 'lot-restore', 'sorted-out-add']" />
  <StateNote v-if="!lots" :error="error" @retry="retry" />
  <template v-else>
    <div v-if="lots.length > FEW" class="sift">
      <TextInput
        v-model="sought"
        type="search"
        :placeholder="t('stock.sift')"
        :aria-label="t('stock.sift')"
      />
      <select v-model="by" :aria-label="t('stock.groupBy')">
        <option v-for="way in GROUPINGS" :key="way" :value="way">{{ t(`stock.by.${way}`) }}</option>
      </select>
    </div>
    <p v-if="sought && !groups.length" class="quiet">{{ t('stock.noneFound', { text: sought }) }}</p>
    <section v-for="group in groups" :key="group.key" class="group">
      <h2 v-if="group.key">
        {{ t(`stock.group.${group.key}`) }} <small class="quiet">{{ group.lots.length }}</small>
      </h2>
      <LongList
        v-slot="{ item }"
        class="ruled-list"
        :items="group.lots"
        :key-of="idOf"
        :height="isPhone ? 146 : 63"
      >
        <StockRow
          :lot="item"
          :amount="amountOf(item)"
          @edit="edit(item)"
          @remove="takeOff(item)"
          @step="step(item.id, $event)"
        />
      </LongList>
    </section>
  </template>
  <section v-if="records?.length" class="sorted" :aria-label="t('sorted.heading')">
    <h2>{{ t('sorted.heading') }}</h2>
    <ul class="ruled-list">
      <li v-for="record in records" :key="record.id">
        <HatchSwatch :hatch="hatchOf(record.material)" :size="32" />
        <span>{{ sortedWords(record) }}</span>
        <span class="quiet small">{{ say.day(record.made_on) }}</span>
        <button
          data-deed="work"
          type="button"
          class="word-act"
          :aria-label="t('sorted.removeNamed', { name: say.nameOf(record.material, record.label) })"
          @click="forget(record)"
        >
          {{ t('stock.remove') }}
        </button>
      </li>
    </ul>
  </section>
  <p v-if="lots?.length" class="to-signs">
    <RouterLink to="/signs" class="word-act">{{ t('signs.open') }}</RouterLink>
  </p>
  <LatelyList :of="['lots', 'sorted-out']" />
  <component
    :is="PictureDrawer"
    v-if="PictureDrawer"
    v-model:open="isTapping"
    :title="t('grid.title')"
    :does="(n: number) => t('grid.write', n)"
    @take="write"
  />
  <component :is="LotDialog" v-if="LotDialog" v-model:open="isOpen" :lot="editing" @sorted-out="sortOut" />
  <component :is="SortedOutDialog" v-if="SortedOutDialog" v-model:open="isSorting" :material="sorting" />
</template>

<style scoped>
.group {
  margin-top: 14px;
}

.to-signs {
  margin-top: 14px;
}

.group h2 {
  margin-bottom: 4px;
}

.sift {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin-top: 14px;
}

.sift :deep(input),
.sift select {
  flex: 1 1 150px;
  max-width: 305px;
  min-height: 44px;
}

.sentence {
  max-width: 620px;
  margin-top: 14px;
}

.sorted {
  margin-top: 28px;
}

.sorted h2 {
  margin-bottom: 6px;
}

.sorted li {
  display: grid;
  grid-template-columns: 32px minmax(0, 1fr) auto auto;
  gap: 14px;
  align-items: center;
  padding: 4px 0;
}
</style>
