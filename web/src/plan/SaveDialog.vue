<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import TextInput from '@/kit/TextInput.vue'
import { computed, nextTick, ref } from 'vue'
import { type Batch, type BatchFields, Refused } from '@/api/client'
import FormDialog from '@/kit/FormDialog.vue'
import FormField from '@/kit/FormField.vue'
import FrameDialog from '@/kit/FrameDialog.vue'
import { useBatches } from './useBatches'
import { useAbout, useMethods } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { useLimits } from '@/api/useLimits'
import { fieldAmong, told } from '@/kit/refusals'
import { useRefusals } from '@/kit/useRefusals'
import { useHalfTyped } from '@/kit/useHalfTyped'
import { useSlip } from '@/kit/useSlip'
import { useDraft } from '@/mix/draft'

/** Saves what lies on the bench under a name; if it was changed elsewhere meanwhile, shows both. */
const open = defineModel<boolean>('open', { required: true })

const say = useSay()
const { t } = say
const store = useDraft()
const slip = useSlip()
const { batches, create, change, current } = useBatches()
const { about } = useAbout()
const { methodName } = useMethods()

const name = ref('')
const { faults, forget, tried } = useRefusals('lot.stale', fieldAmong('name'))
const limits = useLimits()
const theirs = ref<Batch | null>(null)

/** What it might be called: by what is most of it, and by its method and month. */
const suggestions = computed(() => {
  const taken = new Set(batches.value?.map((batch) => batch.name))
  const [first, second] = store.draft.items.map((part) => say.nameOf(part.material, part.label))
  const month = new Intl.DateTimeFormat(say.locale.value, { month: 'long', timeZone: 'UTC' }).format(
    new Date(`${store.draft.build_on ?? about.value?.today ?? '2026-01-01'}T12:00Z`),
  )
  const found = [
    first && second ? t('save.of', { first, second: say.within(second) }) : first,
    t('save.inMonth', { what: store.draft.method ? methodName(store.draft.method) : t('save.heap'), month }),
  ]
  return found.filter(
    (one): one is string => !!one && one.length <= (limits.letters.value ?? 80) && !taken.has(one),
  )
})

function begin() {
  name.value = ''
  forget()
  theirs.value = null
}
const { ended } = useHalfTyped(
  () => open.value,
  () => store.draft.saved?.id ?? '',
  begin,
)

function done(batch: Batch) {
  store.nowSaved(batch)
  ended()
  open.value = false
  theirs.value = null
  slip.said({ text: t('bench.saved', { name: batch.name }) })
}

async function saveNew() {
  if (!name.value.trim()) {
    faults.name = t('save.needName')
    return
  }
  await tried(async () => done(await create.mutateAsync(store.asBatch(name.value))))
}

/** Saves over the batch that the draft came from. */
async function saveAgain(version?: number) {
  const saved = store.draft.saved
  if (!saved) return
  try {
    const batch = store.asBatch(saved.name)
    done(await change.mutateAsync({ id: saved.id, version: version ?? saved.version, batch }))
  } catch (error) {
    if (error instanceof Refused && error.isStale) {
      theirs.value = await current(saved.id)
    } else if (error instanceof Refused && error.problem.status === 404) {
      // Removed meanwhile: what is on the bench can still be kept under a name.
      open.value = true
      await nextTick()
      name.value = saved.name
    } else {
      slip.failed(told(error, { noServer: t('app.noServer') }))
    }
  }
}

function takeTheirs() {
  if (!theirs.value) return
  store.open(theirs.value)
  theirs.value = null
}

function inWords({ items, water_l }: Pick<BatchFields, 'items' | 'water_l'>): string[] {
  const lots = items.map(
    (part) =>
      `${say.amount(part.amount, part.unit, part.measure_id)} ${say.nameOf(part.material, part.label)}`,
  )
  return [...lots, `${say.water(water_l)} ${t('bench.water')}`]
}

defineExpose({ saveAgain })
</script>

<template>
  <FormDialog
    v-model:open="open"
    class="save-dialog"
    :header="t('save.title')"
    :does="t('save.do')"
    :fault="faults.whole"
    :pending="create.isPending.value"
    @save="saveNew"
    @cancel="ended"
  >
    <FormField
      id="batch-name"
      v-slot="{ invalid, described }"
      field="name"
      :label="t('save.name')"
      :hint="t('save.nameHint')"
    >
      <TextInput
        id="batch-name"
        v-model="name"
        autofocus
        fluid
        :maxlength="limits.letters.value"
        :invalid="invalid"
        :aria-describedby="described"
      />
    </FormField>
    <p v-if="suggestions.length" class="suggested">
      <span class="quiet small">{{ t('save.perhaps') }}</span>
      <button v-for="one in suggestions" :key="one" type="button" class="word-act" @click="name = one">
        {{ one }}
      </button>
    </p>
  </FormDialog>
  <FrameDialog
    :visible="theirs !== null"
    class="save-dialog wide"
    :header="t('save.staleTitle')"
    @update:visible="theirs = null"
  >
    <template v-if="theirs">
      <p>{{ t('save.stale', { name: theirs.name }) }}</p>
      <div class="both">
        <section>
          <h3>{{ t('save.mine') }}</h3>
          <ul>
            <li v-for="line in inWords(store.draft)" :key="line">{{ line }}</li>
          </ul>
          <ActButton :label="t('save.keepMine')" @click="saveAgain(theirs.version)" />
        </section>
        <section>
          <h3>{{ t('save.theirs') }}</h3>
          <ul>
            <li v-for="line in inWords(theirs)" :key="line">{{ line }}</li>
          </ul>
          <ActButton :label="t('save.takeTheirs')" variant="outlined" @click="takeTheirs" />
        </section>
      </div>
    </template>
  </FrameDialog>
</template>

<style>
.save-dialog.p-dialog {
  width: min(440px, calc(100vw - 24px));
}

.save-dialog.wide.p-dialog {
  width: min(640px, calc(100vw - 24px));
}
</style>

<style scoped>
.suggested {
  display: flex;
  flex-wrap: wrap;
  gap: 0 16px;
  align-items: center;
}

.both {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 24px;
  margin-top: 16px;
}

h3 {
  font-size: 1rem;
}

.both ul {
  margin: 8px 0 14px;
}
</style>
