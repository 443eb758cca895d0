<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { useRouter } from 'vue-router'
import { v7 } from 'uuid'
import { answered, api, type Fault, type LoggerColumns, type LoggerSeen, type Spot } from '@/api/client'
import ActButton from '@/kit/ActButton.vue'
import { told } from '@/kit/refusals'
import { useAttempt } from '@/kit/useAttempt'
import { useSlip } from '@/kit/useSlip'
import { useFault } from '@/words/useFault'
import { useProbes } from './useProbes'
import { useTending } from './useTending'
import { useLogWords } from './useLogWords'
import LoggerDrawing from './LoggerDrawing.vue'

/** Takes a logger's file in: which column is what, what it looks like, which rows cannot be read. */
const { id } = defineProps<{ id: string }>()
const router = useRouter()
const slip = useSlip()
const { say, t } = useLogWords()
const { attempt } = useAttempt()
const { heap } = useTending(toRef(() => id))
const { refresh } = useProbes(() => ({ kind: 'heap', id }))
const inWords = useFault()

const SPOTS: readonly Spot[] = ['core', 'half-way', 'edge', 'air']
const name = ref('')
const text = ref('')
const seen = ref<LoggerSeen | null>(null)
const columns = ref<LoggerColumns | null>(null)
const trouble = ref('')
const isBusy = ref(false)
const zone = Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC'

const body = () => ({ name: name.value, text: text.value, columns: columns.value, zone })

async function pick(event: Event) {
  const [file] = (event.target as HTMLInputElement).files ?? []
  if (!file) return
  name.value = file.name.slice(0, 80)
  text.value = await file.text()
  columns.value = null
  await look()
}

async function look() {
  isBusy.value = true
  trouble.value = ''
  try {
    const params = { path: { id } }
    seen.value = await answered(api.POST('/api/heaps/{id}/import/look', { params, body: body() }))
    columns.value = seen.value.read_as ?? null
  } catch (failure) {
    trouble.value = told(failure, { noServer: t('app.noServer') })
    if (!columns.value) seen.value = null
  }
  isBusy.value = false
}

/** What is changed is looked at again at once. */
function change(more: Partial<LoggerColumns>) {
  if (!columns.value) return
  columns.value = { ...columns.value, ...more }
  void look()
}
const spotOf = (column: number) => columns.value?.temps.find((one) => one.column === column)?.place ?? ''
function place(column: number, spot: string) {
  const others = (columns.value?.temps ?? []).filter((one) => one.column !== column && one.place !== spot)
  const temps = spot ? [...others, { column, place: spot as Spot }] : others
  change({ temps: temps.sort((a, b) => a.column - b.column) })
}
const nameOf = (at: number) => seen.value?.columns[at]?.name || t('import.column', { n: at + 1 })
const lines = (fault: Fault) =>
  t('import.badCell', { line: fault.line ?? 0, field: fault.field, what: inWords(fault) })

async function take() {
  isBusy.value = true
  const params = { path: { id } }
  await attempt(async () => {
    const taken = await answered(
      api.POST('/api/heaps/{id}/import', { params, body: { ...body(), entry: v7() } }),
    )
    await refresh()
    await router.push(`/heaps/${id}`)
    slip.said({ text: t('import.taken', { n: taken.new, known: taken.known }, taken.new) })
  })
  isBusy.value = false
}
const summary = computed(() => {
  const of = seen.value
  if (!of) return []
  return [
    t('import.rows', { n: of.rows }, of.rows),
    of.span ? t('import.span', { from: say.time(of.span[0]!), to: say.time(of.span[1]!) }) : '',
    t('import.new', { n: of.new }, of.new),
    of.known ? t('import.known', { n: of.known }, of.known) : '',
    of.faulty ? t('import.faulty', { n: of.faulty }, of.faulty) : '',
    of.bad_rows ? t('import.bad', { n: of.bad_rows }, of.bad_rows) : '',
  ].filter(Boolean)
})
</script>

<template>
  <p class="crumb">
    <RouterLink :to="`/heaps/${id}`">{{ heap?.name ?? t('nav.heaps') }}</RouterLink>
  </p>
  <header class="page-head">
    <div>
      <h1>{{ t('import.title') }}</h1>
      <p>{{ t('import.what') }}</p>
    </div>
  </header>
  <div class="field">
    <label for="import-file">{{ t('import.file') }}</label>
    <input id="import-file" type="file" accept=".csv,.txt,.tsv,text/csv,text/plain" @change="pick" />
  </div>
  <p v-if="trouble" class="fault" role="alert">{{ trouble }}</p>
  <template v-if="seen">
    <section v-if="columns" :aria-label="t('import.columns')">
      <h2 class="ruled">{{ t('import.columns') }}</h2>
      <div class="choices">
        <label
          >{{ t('import.time') }}
          <select
            :value="columns.time"
            @change="change({ time: Number(($event.target as HTMLSelectElement).value) })"
          >
            <option v-for="(_, at) in seen.columns" :key="at" :value="at">{{ nameOf(at) }}</option>
          </select></label
        >
        <label
          >{{ t('import.hour') }}
          <select
            :value="columns.hour ?? ''"
            @change="
              change({
                hour:
                  ($event.target as HTMLSelectElement).value === ''
                    ? null
                    : Number(($event.target as HTMLSelectElement).value),
              })
            "
          >
            <option value="">{{ t('import.noHour') }}</option>
            <option v-for="(_, at) in seen.columns" :key="at" :value="at">{{ nameOf(at) }}</option>
          </select></label
        >
        <label
          >{{ t('import.order') }}
          <select
            :value="columns.order"
            @change="change({ order: ($event.target as HTMLSelectElement).value as LoggerColumns['order'] })"
          >
            <option v-for="one in ['ymd', 'dmy', 'mdy']" :key="one" :value="one">
              {{ t(`import.orders.${one}`) }}
            </option>
          </select></label
        >
        <label
          >{{ t('import.unit') }}
          <select
            :value="columns.unit"
            @change="change({ unit: ($event.target as HTMLSelectElement).value as LoggerColumns['unit'] })"
          >
            <option value="c">°C</option>
            <option value="f">°F</option>
          </select></label
        >
        <label
          >{{ t('import.zone') }}
          <input
            :value="columns.zone"
            @change="change({ zone: ($event.target as HTMLInputElement).value.trim() })"
        /></label>
        <label class="check"
          ><input
            type="checkbox"
            :checked="columns.decimal_comma"
            @change="change({ decimal_comma: ($event.target as HTMLInputElement).checked })"
          />
          {{ t('import.comma') }}</label
        >
      </div>
      <!-- eslint-disable-next-line vuejs-accessibility/no-noninteractive-tabindex -->
      <div class="scrolled" tabindex="0" role="region" :aria-label="t('import.columns')">
        <table>
          <thead>
            <tr>
              <th v-for="(_, at) in seen.columns" :key="at" scope="col">
                {{ nameOf(at) }}
                <select
                  :value="spotOf(at)"
                  :aria-label="t('import.whereRead', { name: nameOf(at) })"
                  @change="place(at, ($event.target as HTMLSelectElement).value)"
                >
                  <option value="">{{ t('import.notTemp') }}</option>
                  <option v-for="spot in SPOTS" :key="spot" :value="spot">
                    {{ t(`tend.place.${spot}`) }}
                  </option>
                </select>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="nth in 3" :key="nth">
              <td v-for="(column, at) in seen.columns" :key="at">{{ column.first[nth - 1] }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </section>
    <section :aria-label="t('import.looks')">
      <h2 class="ruled">{{ t('import.looks') }}</h2>
      <LoggerDrawing v-if="seen.lines.length" :lines="seen.lines" />
      <ul class="summary">
        <li v-for="line in summary" :key="line">{{ line }}</li>
      </ul>
      <details v-if="seen.bad.length" open>
        <summary>{{ t('import.badRows') }}</summary>
        <ul>
          <li v-for="(bad, at) in seen.bad" :key="at" class="small">{{ lines(bad) }}</li>
        </ul>
      </details>
    </section>
    <div class="acts">
      <ActButton :to="`/heaps/${id}`" variant="outlined" :label="t('app.cancel')" />
      <ActButton
        data-deed="work"
        :label="t('import.take', { n: seen.new }, seen.new)"
        :loading="isBusy"
        :disabled="!seen.new || isBusy"
        @click="take"
      />
    </div>
  </template>
</template>

<style scoped>
section {
  margin-top: 18px;
}

.choices {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 10px 16px;
  margin: 10px 0;
}

.choices label {
  display: grid;
  gap: 3px;
  font-weight: 600;
}

.choices .check {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
}

select,
.choices input:not([type='checkbox']),
input[type='file'] {
  width: 100%;
  min-height: 44px;
  padding: 0 8px;
  border: 1px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--sheet);
  color: inherit;
  font: inherit;
}

input[type='checkbox'] {
  width: 22px;
  height: 22px;
}

.scrolled {
  overflow-x: auto;
}

table {
  border-collapse: collapse;
}

th,
td {
  min-width: 130px;
  padding: 6px 12px 6px 0;
  border-bottom: 1px solid var(--line);
  text-align: start;
  vertical-align: bottom;
  overflow-wrap: anywhere;
}

.summary {
  margin-top: 8px;
}

.summary li {
  padding: 3px 0;
}

summary {
  min-height: 44px;
  padding: 10px 0;
  font-weight: 600;
  cursor: pointer;
}

.acts {
  margin-top: 18px;
}
</style>
