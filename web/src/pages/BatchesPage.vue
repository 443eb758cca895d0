<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { type Batch, Refused } from '@/api/client'
import HatchSwatch from '@/components/HatchSwatch.vue'
import StateNote from '@/components/StateNote.vue'
import { useBatches } from '@/composables/useBatches'
import { useMaterials } from '@/composables/useFarm'
import { useSay } from '@/composables/useSay'
import { useSlip } from '@/composables/useSlip'
import { useDraft } from '@/stores/draft'

const say = useSay()
const { t } = say
const store = useDraft()
const router = useRouter()
const slip = useSlip()
const { batches, error, retry, create, remove, restore } = useBatches()
const { hatchOf } = useMaterials()

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
          `${say.amount(part.amount, part.unit, part.measure_id)} ${say.nameOf(part.material, part.label).toLowerCase()}`,
      )
      .join(', '),
    when: t('batches.saved', { when: date(batch.updated_at) }),
  })),
)

function date(text: string): string {
  return new Intl.DateTimeFormat(say.locale.value, { dateStyle: 'medium', timeStyle: 'short' }).format(
    new Date(text),
  )
}

function open(batch: Batch) {
  store.open(batch)
  store.nowSaved(batch)
  void router.push('/bench')
}

async function copy({ name, items, water_l, heap }: Batch) {
  await attempt(async () => {
    const batch = await create.mutateAsync({ name: freeName(name), items, water_l, heap })
    open(batch)
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
  await attempt(async () => {
    await remove.mutateAsync(batch.id)
    slip.said({
      text: t('batches.removed', { name: batch.name }),
      undoLabel: t('app.undo'),
      undo: () => void attempt(() => bringBack(batch)),
    })
  })
}

async function bringBack(batch: Batch) {
  await restore.mutateAsync(batch.id)
  slip.said({ text: t('batches.back', { name: batch.name }) })
}

async function attempt(act: () => Promise<void>) {
  try {
    await act()
  } catch (failure) {
    slip.failed(failure instanceof Refused ? failure.message : t('app.noServer'))
  }
}
</script>

<template>
  <header class="page-head">
    <div>
      <h1>{{ batches ? headline : t('batches.title') }}</h1>
      <p v-if="batches?.length === 0">{{ t('batches.noneHint') }}</p>
    </div>
    <div v-if="batches?.length === 0" class="acts">
      <Button as="router-link" to="/bench" :label="t('layers.toBench')" />
    </div>
  </header>
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
        <p>{{ row.words }}</p>
        <p class="quiet small">{{ row.when }}</p>
      </div>
      <div class="row-acts">
        <button
          type="button"
          class="word-act"
          :aria-label="t('batches.copyNamed', { name: row.batch.name })"
          @click="copy(row.batch)"
        >
          {{ t('batches.copy') }}
        </button>
        <button
          type="button"
          class="word-act"
          :aria-label="t('batches.removeNamed', { name: row.batch.name })"
          @click="takeOff(row.batch)"
        >
          {{ t('batches.remove') }}
        </button>
        <Button
          variant="outlined"
          :label="t('batches.open')"
          :aria-label="t('batches.openNamed', { name: row.batch.name })"
          @click="open(row.batch)"
        />
      </div>
    </li>
  </ul>
</template>

<style scoped>
ul {
  margin-top: 18px;
  border-top: 1.5px solid var(--ink);
}

li {
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
    justify-content: space-between;
  }
}
</style>
