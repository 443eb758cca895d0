<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, ref } from 'vue'
import { type ImportAnswer, Refused } from '@/api/client'
import { decoded } from './decoded'
import { useFault } from '@/words/useFault'
import { useOwnMaterials } from './useOwnMaterials'
import { useSay } from '@/words/useSay'
import { useSlip } from '@/kit/useSlip'

/** Materials as a file: taken out, looked at before it is taken in, all of it or nothing. */
const { t } = useSay()
const sayFault = useFault()
const slip = useSlip()
const { takeIn } = useOwnMaterials()

const csv = ref('')
const name = ref('')
const seen = ref<ImportAnswer | null>(null)
const headerFaults = ref<string[]>([])

const bad = computed(() => seen.value?.rows.filter((row) => row.what === 'bad') ?? [])
/** Reasons are told of the first rows; of the others only that there are more. */
const told = computed(() => bad.value.filter((row) => row.faults.length > 0))
const untold = computed(() => bad.value.length - told.value.length)
const fresh = computed(
  () => seen.value?.rows.filter((row) => row.what === 'new' || row.what === 'changed') ?? [],
)
const same = computed(() => seen.value?.rows.filter((row) => row.what === 'same').length ?? 0)

const headline = computed(() => {
  if (headerFaults.value.length) return t('file.notATable')
  if (!seen.value) return t('file.title')
  if (bad.value.length) return t('file.bad', bad.value.length)
  if (!fresh.value.length) return t('file.nothingNew')
  return t('file.good', fresh.value.length)
})

async function choose(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (!file) return
  name.value = file.name
  const text = decoded(await file.arrayBuffer())
  if (text === null) {
    seen.value = null
    headerFaults.value = [t('file.notText')]
    return
  }
  csv.value = text
  await look(false)
}

async function look(write: boolean) {
  headerFaults.value = []
  try {
    seen.value = await takeIn.mutateAsync({ csv: csv.value, write })
    if (seen.value.written) {
      slip.said({ text: t('file.taken', fresh.value.length) })
      seen.value = null
      csv.value = ''
      name.value = ''
    }
  } catch (failure) {
    seen.value = null
    if (!(failure instanceof Refused)) slip.failed(t('app.noServer'))
    else
      headerFaults.value = failure.problem.errors.map(({ field, reason }) =>
        field ? `${field}: ${reason}` : reason,
      )
  }
}
</script>

<template>
  <p class="crumb">
    <RouterLink to="/reference">{{ t('nav.reference') }}</RouterLink>
  </p>
  <header class="page-head">
    <div aria-live="polite">
      <h1>{{ headline }}</h1>
      <p>{{ t(seen && bad.length ? 'file.badHint' : 'file.lead') }}</p>
    </div>
    <div v-if="seen" class="acts">
      <ActButton
        :label="t('file.takeIn')"
        :disabled="bad.length > 0 || fresh.length === 0"
        :loading="takeIn.isPending.value"
        @click="look(true)"
      />
    </div>
  </header>
  <div class="ways">
    <section>
      <h2>{{ t('file.in') }}</h2>
      <label class="chooser">
        <span>{{ name || t('file.choose') }}</span>
        <input type="file" accept=".csv,text/csv" @change="choose" />
      </label>
      <div class="field">
        <label for="csv-text">{{ t('file.paste') }}</label>
        <textarea id="csv-text" v-model="csv" rows="4" spellcheck="false" />
      </div>
      <ActButton
        variant="outlined"
        :label="t('file.look')"
        :disabled="!csv.trim()"
        :loading="takeIn.isPending.value"
        @click="look(false)"
      />
    </section>
    <section>
      <h2>{{ t('file.out') }}</h2>
      <p>
        <a href="/api/materials.csv" download>{{ t('file.outAll') }}</a>
      </p>
      <p>
        <a href="/api/materials.csv?own=true" download>{{ t('file.outOwn') }}</a>
      </p>
      <p class="quiet small">{{ t('file.columns') }}</p>
    </section>
  </div>
  <ul v-if="headerFaults.length" class="ruled-list faults">
    <li v-for="fault in headerFaults" :key="fault">{{ fault }}</li>
  </ul>
  <template v-if="seen">
    <section v-if="bad.length" :aria-label="t('file.badRows')">
      <h2>{{ t('file.badRows') }}</h2>
      <ul class="ruled-list faults">
        <li v-for="row in told" :key="row.line">
          <b>{{ t('file.line', { line: row.line }) }}</b>
          <span>{{ row.id || '—' }}</span>
          <ul>
            <li v-for="fault in row.faults" :key="fault.field">
              <code>{{ fault.field }}</code>: {{ sayFault(fault) }}
            </li>
          </ul>
        </li>
        <li v-if="untold">{{ t('fault.and-more', { count: untold }) }}</li>
      </ul>
    </section>
    <section v-if="fresh.length" :aria-label="t('file.goodRows')">
      <h2>{{ t('file.goodRows') }}</h2>
      <ul class="ruled-list rows">
        <li v-for="row in fresh" :key="row.line">
          <b>{{ t('file.line', { line: row.line }) }}</b>
          <span>{{ row.name }}</span>
          <span class="quiet">{{ t(`file.what.${row.what}`) }}</span>
          <span v-if="row.doubts.length" class="doubt">{{
            row.doubts.map((doubt) => t(`doubtShort.${doubt.code}`)).join('; ')
          }}</span>
        </li>
      </ul>
    </section>
    <p v-if="same" class="quiet">{{ t('file.same', same) }}</p>
  </template>
</template>

<style scoped>
.crumb {
  margin-bottom: 4px;
}

.ways {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr);
  gap: 18px 40px;
  margin: 18px 0;
}

.ways section {
  display: flex;
  flex-direction: column;
  gap: 12px;
  align-items: flex-start;
}

.chooser {
  position: relative;
  display: flex;
  align-items: center;
  min-height: 46px;
  padding: 0 18px;
  border: 1px solid var(--act);
  border-radius: var(--radius);
  color: var(--act);
  font-weight: 600;
  cursor: pointer;
}

.chooser:has(:focus-visible) {
  outline: 3px solid var(--act);
  outline-offset: 2px;
}

.chooser input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}

.field {
  width: 100%;
}

textarea {
  font: 0.875rem/1.4 monospace;
}

section h2 {
  margin-top: 8px;
}

.faults > li {
  padding: 8px 0;
}

.faults b {
  margin-inline-end: 12px;
}

.faults ul {
  padding-inline-start: 12px;
  border-inline-start: 3px solid var(--alarm);
}

.rows li {
  display: grid;
  grid-template-columns: 5rem minmax(0, 1fr) auto;
  gap: 2px 12px;
  padding: 7px 0;
}

.doubt {
  grid-column: 2 / -1;
  color: var(--alarm);
}

@media (max-width: 859px) {
  .ways {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
