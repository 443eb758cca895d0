<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import { type Batch, type BatchListed, type HeapListed, Refused } from '@/api/client'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import HeapList from '@/build/HeapList.vue'
import LatelyList from '@/kit/LatelyList.vue'
import ReplaceDialog from '@/mix/ReplaceDialog.vue'
import StateNote from '@/kit/StateNote.vue'
import StandsAlready from '@/tend/StandsAlready.vue'
import { useAttempt } from '@/kit/useAttempt'
import { useBatches } from './useBatches'
import { useHeaps } from '@/build/useHeaps'
import { useMethods, useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { told } from '@/kit/refusals'
import { useSlip } from '@/kit/useSlip'
import { complaintOf } from '@/mix/useVerdict'
import { useDraft } from '@/mix/draft'

const say = useSay()
const { methodName } = useMethods()
const { t } = say
const store = useDraft()
const router = useRouter()
const slip = useSlip()
const { attempt, undoable } = useAttempt()
const { batches, error, retry, create, remove, take, giveBack } = useBatches()
const { heaps, begin } = useHeaps()
const { hatchOf } = useNames()

const headline = computed(() =>
  batches.value?.length ? t('batches.some', batches.value.length) : t('batches.none'),
)

const rows = computed(() =>
  (batches.value ?? []).map((batch) => ({
    batch,
    hatches: batch.items.map((part) => hatchOf(part.material)),
    words: batch.items
      .map(
        (part) =>
          `${say.amount(part.amount, part.unit, part.measure_id)} ${say.nameWithin(part.material, part.label)}`,
      )
      .join(', '),
    when: [
      batch.method ? methodName(batch.method) : '',
      t('batches.saved', { when: say.time(batch.updated_at) }),
      batch.taken_at ? t('batches.isTaken', { when: say.day(batch.taken_at) }) : '',
    ]
      .filter(Boolean)
      .join(', '),
    verdict: verdictOf(batch),
    heaps: heapsOf(batch),
    hasLots: batch.items.some((part) => part.lot_id != null),
  })),
)

/** How the mix stands, and whether it heats; nothing where it cannot be summed. */
function verdictOf({ sums, size, heaps = 1 }: BatchListed): string {
  if (!sums) return ''
  const volume = say.heap(sums.heap_volume_l / heaps)
  const alike = heaps > 1 ? t('batches.alike', { n: heaps, volume }) : volume
  return `${t(`verdict.is.${complaintOf(sums).key}`)} ${alike}: ${t(`stand.size.${size ?? 'big-enough'}`)}.`
}

/** The heaps that are or were built of it. */
function heapsOf({ id }: Batch): { heap: HeapListed; words: string }[] {
  return (heaps.value ?? [])
    .filter((heap) => heap.batch_id === id)
    .map((heap) => ({
      heap,
      words:
        heap.laid === heap.planned
          ? t('build.isBuilt', {
              name: heap.name,
              when: say.day(heap.built_at ?? heap.changed_at),
              height: say.length(heap.height_cm ?? 0),
            })
          : t('build.beingBuilt', { name: heap.name, laid: heap.laid, of: heap.planned }),
    }))
}

const replace = useTemplateRef('replace')
/** The batch whose heap stands already. */
const standing = ref<{ id: string; name: string } | null>(null)

/** Lays a batch on the bench; what lies there unsaved is not swept away unasked. */
const build = (batch: string) =>
  attempt(async () => {
    const heap = await begin.mutateAsync(batch)
    await router.push(`/build/${heap.id}`)
  })

async function open(batch: Batch) {
  if (!(await replace.value?.mayReplace(batch))) return
  store.open(batch)
  void router.push('/bench')
}

async function copy({ name, items, water_l, heap, heaps, method, starters }: Batch) {
  await attempt(async () => {
    const batch = await create.mutateAsync({
      name: freeName(name),
      items,
      water_l,
      heap,
      heaps,
      method,
      starters,
    })
    await open(batch)
    slip.said({ text: t('batches.copied', { name: batch.name }) })
  })
}

/** "Terrace heap, copy", or the next number that is not taken. */
function freeName(of: string): string {
  const taken = new Set(batches.value?.map((batch) => batch.name))
  const short = of.slice(0, 64)
  let name = t('batches.copyName', { name: short })
  for (let n = 2; taken.has(name); n += 1) name = t('batches.copyNameN', { name: short, n })
  return name
}

async function takeOff(batch: Batch) {
  await undoable(
    t(batch.taken_at ? 'batches.removedGiven' : 'batches.removed', { name: batch.name }),
    () => remove.mutateAsync(batch.id),
    { what: 'batches', id: batch.id },
    t('batches.back', { name: batch.name }),
  )
}

/** Takes the amounts from stock; where a lot holds too little, asks whether what is there will do. */
async function fetchFromStock(batch: Batch) {
  try {
    await taken(batch, false)
  } catch (failure) {
    const short = failure instanceof Refused ? failure.problem.errors : undefined
    if (!short?.length) return slip.failed(told(failure, { noServer: t('app.noServer') }))
    const names = short.map(({ field }) => {
      const part = batch.items[Number(/\d+/.exec(field)?.[0])]
      return part ? say.nameWithin(part.material, part.label) : field
    })
    slip.said({
      text: t('batches.short', { names: names.join(', ') }),
      undoLabel: t('batches.takeWhatIsThere'),
      undo: () => void attempt(() => taken(batch, true)),
    })
  }
}

async function taken(batch: Batch, what_is_there: boolean) {
  const done = await take.mutateAsync({ id: batch.id, version: batch.version, what_is_there })
  slip.said({
    text: t('batches.taken', { name: batch.name }),
    undoLabel: t('app.undo'),
    undo: () => void attempt(() => giveBack.mutateAsync({ id: done.id, version: done.version })),
  })
}

async function putBack(batch: Batch) {
  const done = await attempt(() => giveBack.mutateAsync({ id: batch.id, version: batch.version }))
  if (done) slip.said({ text: t('batches.given', { name: batch.name }) })
}
</script>

<template>
  <header class="page-head">
    <div>
      <h1>{{ batches ? headline : t('batches.title') }}</h1>
      <p v-if="batches?.length === 0">{{ t('batches.noneHint') }}</p>
    </div>
    <div v-if="batches?.length === 0" class="acts">
      <ActButton to="/bench" :label="t('layers.toBench')" />
    </div>
  </header>
  <HeapList />
  <StateNote v-if="!batches" :error="error" @retry="retry" />
  <ul v-else>
    <li v-for="row in rows" :key="row.batch.id">
      <div class="signs" aria-hidden="true">
        <HatchSwatch
          v-for="(hatch, index) in row.hatches.slice(0, 6)"
          :key="index"
          :hatch="hatch"
          :size="28"
        />
      </div>
      <div class="named">
        <h2>{{ row.batch.name }}</h2>
        <p v-if="row.verdict" class="verdict">{{ row.verdict }}</p>
        <p>{{ row.words }}</p>
        <p v-for="one in row.heaps" :key="one.heap.id">
          <RouterLink
            :to="one.heap.laid === one.heap.planned ? `/heaps/${one.heap.id}` : `/build/${one.heap.id}`"
            class="over"
            >{{ one.words }}</RouterLink
          >
        </p>
        <p class="quiet small">{{ row.when }}</p>
      </div>
      <div class="row-acts">
        <button
          v-if="row.batch.taken_at"
          data-deed="work"
          type="button"
          class="word-act"
          :aria-label="t('batches.giveBackNamed', { name: row.batch.name })"
          @click="putBack(row.batch)"
        >
          {{ t('batches.giveBack') }}
        </button>
        <button
          v-else-if="row.hasLots"
          data-deed="work"
          type="button"
          class="word-act"
          :aria-label="t('batches.takeNamed', { name: row.batch.name })"
          @click="fetchFromStock(row.batch)"
        >
          {{ t('batches.take') }}
        </button>
        <button
          v-if="!row.heaps.some(({ heap }) => heap.laid < heap.planned)"
          data-deed="work"
          type="button"
          class="word-act"
          :aria-label="t('build.alreadyNamed', { name: row.batch.name })"
          @click="standing = { id: row.batch.id, name: row.batch.name }"
        >
          {{ t('build.already') }}
        </button>
        <button
          data-deed="work"
          type="button"
          class="word-act"
          :aria-label="t('batches.copyNamed', { name: row.batch.name })"
          @click="copy(row.batch)"
        >
          {{ t('batches.copy') }}
        </button>
        <button
          data-deed="work"
          type="button"
          class="word-act"
          :aria-label="t('batches.removeNamed', { name: row.batch.name })"
          @click="takeOff(row.batch)"
        >
          {{ t('batches.remove') }}
        </button>
        <ActButton
          v-if="!row.heaps.some(({ heap }) => heap.laid < heap.planned)"
          data-deed="work"
          variant="outlined"
          class="build"
          :label="t('build.begin')"
          :aria-label="t('batches.buildNamed', { name: row.batch.name })"
          @click="build(row.batch.id)"
        />
        <ActButton
          variant="outlined"
          class="open"
          :label="t('batches.open')"
          :aria-label="t('batches.openNamed', { name: row.batch.name })"
          @click="open(row.batch)"
        />
      </div>
    </li>
  </ul>
  <LatelyList :of="['batches', 'heaps']" />
  <ReplaceDialog ref="replace" />
  <StandsAlready v-model:batch="standing" />
</template>

<style scoped>
ul {
  margin-top: 18px;
  border-top: 1.5px solid var(--ink);
}

li {
  position: relative;
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr) auto;
  gap: 20px;
  align-items: center;
  padding: 14px 0;
  border-bottom: 1px solid var(--line);
}

.signs {
  display: grid;
  grid-template-columns: repeat(3, 28px);
  gap: 3px;
}

h2 {
  font-size: 1.125rem;
  overflow-wrap: anywhere;
}

.verdict {
  font-weight: 640;
}

/* The whole row opens; what stands on it still does what it says. */
.open {
  position: static;
  overflow: visible;
}

.open::after {
  content: '';
  position: absolute;
  inset: 0;
}

li:hover {
  background: var(--paper-2);
}

.over,
.build,
.row-acts .word-act {
  position: relative;
  z-index: 1;
}

.row-acts {
  display: flex;
  gap: 20px;
  align-items: center;
}

@media (max-width: 859px) {
  li {
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }

  .signs {
    display: flex;
  }

  .row-acts {
    flex-wrap: wrap;
    gap: 8px 20px;
    justify-content: space-between;
  }
}
</style>
