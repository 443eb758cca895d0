<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import TextInput from '@/kit/TextInput.vue'
import { computed, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { type MethodFields } from '@/api/client'
import { useLimits } from '@/api/useLimits'
import NumberField from '@/kit/NumberField.vue'
import { isSound } from '@/kit/sound'
import StateNote from '@/kit/StateNote.vue'
import { useMethods } from '@/farm/useFarm'
import { fieldsOf, useOwnMethods } from './useOwnMethods'
import { useSay } from '@/words/useSay'
import { fieldAmong } from '@/kit/refusals'
import { useRefusals } from '@/kit/useRefusals'
import { useSlip } from '@/kit/useSlip'
import type { Quantity } from '@/words/units'

/** A method of one's own: copied from another with other figures, or changed. */
const { copy, change: changed } = defineProps<{ copy: string | null; change: string | null }>()

const say = useSay()
const limits = useLimits()
const { t } = say
const router = useRouter()
const slip = useSlip()
const { methods, find, methodName } = useMethods()
const { copy: make, change } = useOwnMethods()

type RangeKey = {
  [K in keyof MethodFields]-?: number[] extends NonNullable<MethodFields[K]> ? K : never
}[keyof MethodFields]
type SingleKey = {
  [K in keyof MethodFields]-?: number extends NonNullable<MethodFields[K]> ? K : never
}[keyof MethodFields]
interface Row {
  keys: { range: RangeKey } | { single: SingleKey }
  quantity?: Quantity
  digits?: number
}

const ROWS: Row[] = [
  { keys: { range: 'volume_l' }, quantity: 'heap' },
  { keys: { range: 'height_cm' }, quantity: 'length' },
  { keys: { range: 'c_n' }, digits: 1 },
  { keys: { range: 'moisture_pct' }, digits: 1 },
  { keys: { single: 'free_air_space_min_pct' }, digits: 1 },
  { keys: { single: 'first_turn_day' }, digits: 0 },
  { keys: { range: 'turn_every_days' }, digits: 1 },
  { keys: { range: 'check_days' }, digits: 1 },
  { keys: { range: 'active_weeks' }, digits: 1 },
  { keys: { range: 'cure_weeks' }, digits: 1 },
  { keys: { range: 'volume_left_pct' }, digits: 0 },
  { keys: { range: 'mass_left_pct' }, digits: 0 },
  { keys: { range: 'n_kept_pct' }, digits: 0 },
  { keys: { range: 'build_h_m3' } },
  { keys: { range: 'turn_h_m3' } },
  { keys: { single: 'foundation_cm' }, quantity: 'length' },
  { keys: { single: 'cap_cm' }, quantity: 'length' },
]
const LAYERS = ['brown', 'green', 'manure', 'soil', 'card'] as const

const form = reactive<Partial<MethodFields>>({})
const { faults, forget, tried } = useRefusals('measures.stale', (path) =>
  fieldAmong(...Object.keys(form))(path),
)
const from = computed(() => find(changed ?? copy))
const version = ref<number | null>(null)

watch(
  from,
  (method) => {
    if (!method || version.value !== null) return
    Object.assign(form, fieldsOf(method))
    if (changed === null) form.name = t('methods.nameOf', { name: methodName(method.id) })
    version.value = method.version ?? 0
  },
  { immediate: true },
)

/** Rows of what this method has: one that is never turned has no days between turns. */
const rows = computed(() =>
  ROWS.map((row) => {
    const key = 'range' in row.keys ? row.keys.range : row.keys.single
    const name = t(`methods.form.${key}`, { unit: row.quantity ? say.sign(row.quantity) : '' })
    return { ...row, key, name, isRange: 'range' in row.keys }
  }).filter(({ key }) => form[key] != null),
)

const valueOf = (key: keyof MethodFields, end: number) => {
  const value = form[key]
  return Array.isArray(value) ? (value[end] as number) : (value as number)
}
function set(key: keyof MethodFields, end: number, value: number | null) {
  if (value === null) return
  const now = form[key]
  if (Array.isArray(now)) (now as number[])[end] = value
  else Object.assign(form, { [key]: value })
}

const pattern = computed(() => form.pattern ?? [])
const others = computed(() => LAYERS.filter((layer) => !pattern.value.includes(layer)))
function down(at: number) {
  const next = [...pattern.value]
  next.splice(at - 1, 2, next[at]!, next[at - 1]!)
  form.pattern = next
}

async function save() {
  forget()
  if (!form.name?.trim()) {
    faults.name = t('methods.needName')
    return
  }
  const method = { ...form } as MethodFields
  await tried(async () => {
    const saved =
      changed === null
        ? await make.mutateAsync({ base: copy ?? '', method })
        : await change.mutateAsync({ id: changed, version: version.value ?? 0, method })
    slip.said({ text: t('methods.saved', { name: saved.name ?? '' }) })
    void router.push(`/methods/${saved.id}`)
  })
}
</script>

<template>
  <p class="crumb">
    <RouterLink to="/methods">{{ t('methods.title') }}</RouterLink>
  </p>
  <h1>{{ t('methods.formTitle') }}</h1>
  <StateNote v-if="!methods" :error="null" />
  <p v-else-if="!from">{{ t('methods.unknown') }}</p>
  <form v-else novalidate @submit.prevent="(event) => isSound(event.currentTarget as HTMLElement) && save()">
    <p class="quiet">{{ t('methods.formLead', { name: methodName(from.base ?? from.id) }) }}</p>
    <div class="field named">
      <label for="method-name">{{ t('methods.name') }}</label>
      <TextInput
        id="method-name"
        v-model="form.name"
        fluid
        :maxlength="limits.letters.value"
        :invalid="!!faults.name"
        :aria-describedby="faults.name ? 'method-name-fault' : undefined"
      />
      <p v-if="faults.name" id="method-name-fault" class="fault" role="alert">{{ faults.name }}</p>
    </div>
    <table>
      <thead>
        <tr>
          <th scope="col">{{ t('methods.figure') }}</th>
          <th scope="col">{{ t('methods.low') }}</th>
          <th scope="col">{{ t('methods.high') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.key">
          <th scope="row">
            {{ row.name }}
            <p v-if="faults[row.key]" class="fault small" role="alert">{{ faults[row.key] }}</p>
          </th>
          <td v-for="end in row.isRange ? [0, 1] : [0]" :key="end">
            <NumberField
              :model-value="valueOf(row.key, end)"
              v-bind="limits.in('method', row.key)"
              :digits="row.digits ?? 2"
              :quantity="row.quantity"
              :aria-label="
                row.isRange ? `${row.name}, ${t(end === 0 ? 'methods.low' : 'methods.high')}` : row.name
              "
              @update:model-value="(value) => set(row.key, end, value)"
            />
          </td>
          <td v-if="!row.isRange" />
        </tr>
      </tbody>
    </table>
    <section v-if="from.pattern.length" class="pattern">
      <h2>{{ t('methods.patternTitle') }}</h2>
      <p v-if="faults.pattern" class="fault" role="alert">{{ faults.pattern }}</p>
      <ol>
        <li v-for="(layer, at) in pattern" :key="layer">
          <span>{{ t(`pattern.${layer}`) }}</span>
          <button
            type="button"
            class="word-act"
            :disabled="at === 0"
            :aria-label="t('methods.up', { name: t(`pattern.${layer}`) })"
            @click="down(at)"
          >
            ↓
          </button>
          <button
            type="button"
            class="word-act"
            :disabled="pattern.length === 1"
            :aria-label="t('methods.out', { name: t(`pattern.${layer}`) })"
            @click="form.pattern = pattern.filter((one) => one !== layer)"
          >
            ×
          </button>
        </li>
      </ol>
      <button
        v-for="layer in others"
        :key="layer"
        type="button"
        class="word-act add"
        @click="form.pattern = [...pattern, layer]"
      >
        + {{ t(`pattern.${layer}`) }}
      </button>
    </section>
    <p v-if="faults.whole" class="fault" role="alert">{{ faults.whole }}</p>
    <div class="acts">
      <ActButton type="button" variant="outlined" :label="t('app.cancel')" @click="router.back()" />
      <ActButton
        type="submit"
        :label="t('lot.save')"
        :loading="make.isPending.value || change.isPending.value"
      />
    </div>
  </form>
</template>

<style scoped>
.crumb {
  margin-bottom: 4px;
}

form {
  max-width: 640px;
  margin-top: 4px;
}

.named {
  margin: 14px 0;
}

table {
  width: 100%;
  border-collapse: collapse;
  border-top: 1.5px solid var(--ink);
}

th {
  padding: 4px 12px 4px 0;
  text-align: start;
  font-weight: 600;
  line-height: 1.25;
}

thead th {
  font-weight: 400;
  font-size: 0.875rem;
  color: var(--ink-2);
}

thead th + th {
  padding-inline-start: 9px;
}

tbody tr {
  border-bottom: 1px solid var(--line);
}

td {
  width: 104px;
  padding: 4px 0 4px 8px;
}

td :deep(input) {
  width: 96px;
}

.pattern {
  margin-top: 18px;
}

/* Built up from below: the first lies at the foot. */
.pattern ol {
  display: flex;
  flex-direction: column-reverse;
  margin: 8px 0;
  border-top: 1px solid var(--line);
}

.pattern li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 44px 44px;
  align-items: center;
  border-bottom: 1px solid var(--line);
}

.pattern li .word-act {
  text-align: center;
  font-size: 1.25rem;
}

.add {
  margin-inline-end: 18px;
}

.acts {
  margin-top: 18px;
}

@media (max-width: 480px) {
  td {
    width: 78px;
  }

  td :deep(input) {
    width: 72px;
  }
}
</style>
