<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import ActButton from '@/kit/ActButton.vue'
import TextInput from '@/kit/TextInput.vue'
import { computed, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answered, api, type MaterialFields } from '@/api/client'
import { key as keyOf } from '@/api/keys'
import DoubtList from './DoubtList.vue'
import { useLimits } from '@/api/useLimits'
import NumberField from '@/kit/NumberField.vue'
import { isSound } from '@/kit/sound'
import StateNote from '@/kit/StateNote.vue'
import { useMaterials } from '@/farm/useFarm'
import { columnsOf, useOwnMaterials } from './useOwnMaterials'
import { useSay } from '@/words/useSay'
import { fieldAmong } from '@/kit/refusals'
import { useRefusals } from '@/kit/useRefusals'
import { useSlip } from '@/kit/useSlip'
import type { Quantity } from '@/words/units'

/** A material of one's own: new, copied from another, or changed. Its figures are checked while they are typed. */
const { copy, change: changed } = defineProps<{ copy: string | null; change: string | null }>()

const say = useSay()
const limits = useLimits()
const { t } = say
const router = useRouter()
const slip = useSlip()
const { materials, byId } = useMaterials()
const { create, change } = useOwnMaterials()

const KINDS = ['brown', 'green', 'manure', 'household', 'bulking', 'mineral', 'starter', 'liquid']
const GROUPS = [
  'crop residue',
  'leaves',
  'grass & weeds',
  'woody',
  'paper',
  'animal manure',
  'bedding',
  'kitchen',
  'agro-processing',
  'aquatic',
  'animal by-product',
  'mineral amendment',
  'microbial',
  'liquid',
]
const SPEEDS = ['fast', 'medium', 'slow', 'very-slow', 'inert']
const SIZES = ['fine', 'medium', 'coarse']

/** Figures with a range: the usual value and its two ends. */
const RANGES: { keys: [NumberKey, NumberKey, NumberKey]; quantity?: Quantity }[] = [
  { keys: ['moisture_pct', 'moisture_low', 'moisture_high'] },
  { keys: ['n_pct', 'n_low', 'n_high'] },
  { keys: ['c_n', 'c_n_low', 'c_n_high'] },
  { keys: ['density_kg_l', 'density_low', 'density_high'], quantity: 'density' },
]
const SINGLE: { key: NumberKey; digits: number }[] = [
  { key: 'ash_pct', digits: 2 },
  { key: 'lignin_pct', digits: 2 },
  { key: 'settle', digits: 2 },
  { key: 'decays_pct', digits: 0 },
  { key: 'wet_max_pct', digits: 0 },
  { key: 'keeps_days', digits: 0 },
  { key: 'p_pct', digits: 3 },
  { key: 'k_pct', digits: 3 },
]
type NumberKey = {
  [K in keyof MaterialFields]-?: number extends NonNullable<MaterialFields[K]> ? K : never
}[keyof MaterialFields]

const BLANK: MaterialFields = {
  id: '',
  name: '',
  name_es: '',
  kind: 'brown',
  group: 'crop residue',
  settle: 0.7,
  degradability: 'medium',
  particle: 'medium',
  structure: 1,
  names: [],
  names_es: [],
  cautions: [],
  source: '',
  note: '',
}

/** Names with semicolons between; what is still being typed may end in one. */
const namesIn = (text: string | undefined) => (text ?? '').split(';').map((name) => name.trimStart())

const form = reactive<MaterialFields>({ ...BLANK })
const { faults, forget, tell, tried } = useRefusals('measures.stale', (path) =>
  fieldAmong(...Object.keys(form))(path),
)
const from = computed(() => {
  const id = changed ?? copy
  return id ? (byId.value.get(id) ?? null) : null
})
const version = ref<number | null>(null)

watch(
  from,
  (material) => {
    if (!material || version.value !== null) return
    Object.assign(form, columnsOf(material, changed === null))
    if (changed === null) {
      form.name = t('reference.copyName', { name: material.name })
      form.source = t('reference.copySource', { name: material.name })
    }
    version.value = material.version ?? 0
  },
  { immediate: true },
)

const cautions = computed(() => [
  ...new Set(materials.value.flatMap((material) => material.cautions.map((caution) => caution.code))),
])

const isWhole = computed(
  () =>
    form.name.trim() !== '' &&
    RANGES.every(({ keys }) => form[keys[0]] != null) &&
    form.ash_pct != null &&
    form.source.trim() !== '',
)

const { data: checked, error: refusal } = useQuery({
  queryKey: keyOf('check', () => ({ ...form, cautions: [...(form.cautions ?? [])] })),
  queryFn: ({ signal }) =>
    answered(api.POST('/api/materials/check', { body: { ...form, id: changed ?? form.id }, signal })),
  enabled: isWhole,
  placeholderData: keepPreviousData,
})
const doubts = computed(() => (isWhole.value && !refusal.value ? (checked.value?.doubts ?? []) : []))

watch([isWhole, refusal], () => tell(isWhole.value ? refusal.value : null))

async function save() {
  forget()
  if (!form.name.trim()) faults.name = t('reference.needName')
  if (!form.source.trim()) faults.source = t('reference.needSource')
  for (const { keys } of RANGES) if (form[keys[0]] == null) faults[keys[0]] = t('reference.needFigure')
  if (form.ash_pct == null) faults.ash_pct = t('reference.needFigure')
  if (Object.keys(faults).length) return
  await tried(async () => {
    const saved =
      changed === null
        ? await create.mutateAsync({ ...form })
        : await change.mutateAsync({ id: changed, version: version.value ?? 0, material: { ...form } })
    slip.said({ text: t('bench.saved', { name: saved.name }) })
    void router.push(`/reference/${saved.id}`)
  })
}
</script>

<template>
  <p class="crumb">
    <RouterLink to="/reference">{{ t('nav.reference') }}</RouterLink>
  </p>
  <h1>{{ t(changed ? 'reference.changeTitle' : 'reference.addTitle') }}</h1>
  <p class="quiet">{{ t('reference.formLead') }}</p>
  <StateNote v-if="(copy || changed) && !from" />
  <form v-else novalidate @submit.prevent="(event) => isSound(event.currentTarget as HTMLElement) && save()">
    <div class="pair">
      <div class="field">
        <label for="material-name">{{ t('column.name') }}</label>
        <TextInput id="material-name" v-model="form.name" fluid :maxlength="limits.textLetters.value" />
        <p v-if="faults.name" class="fault" role="alert">{{ faults.name }}</p>
        <p v-else-if="faults['id']" class="fault" role="alert">{{ faults['id'] }}</p>
      </div>
      <div class="field">
        <label for="material-source">{{ t('column.source') }}</label>
        <TextInput id="material-source" v-model="form.source" fluid :maxlength="limits.textLetters.value" />
        <p v-if="faults.source" class="fault" role="alert">{{ faults.source }}</p>
        <p v-else class="quiet small">{{ t('reference.sourceHint') }}</p>
      </div>
    </div>
    <div class="field">
      <label for="material-names">{{ t('column.names') }}</label>
      <TextInput
        id="material-names"
        :model-value="(form.names ?? []).join('; ')"
        fluid
        :maxlength="limits.textLetters.value"
        @update:model-value="(text) => (form.names = namesIn(text ?? ''))"
      />
      <p v-if="faults.names" class="fault" role="alert">{{ faults.names }}</p>
      <p v-else class="quiet small">{{ t('reference.namesHint') }}</p>
    </div>
    <div class="choices">
      <div
        v-for="[key, list, words] in [
          ['kind', KINDS, 'kind'],
          ['group', GROUPS, 'group'],
          ['degradability', SPEEDS, 'degradability'],
          ['particle', SIZES, 'particle'],
        ] as ['kind' | 'group' | 'degradability' | 'particle', string[], string][]"
        :key="key"
        class="field"
      >
        <label :for="`material-${key}`">{{ t(`column.${key}`) }}</label>
        <select :id="`material-${key}`" v-model="form[key]">
          <option v-for="one in list" :key="one" :value="one">{{ t(`${words}.${one}`) }}</option>
        </select>
      </div>
      <div class="field">
        <label for="material-structure">{{ t('column.structure') }}</label>
        <select id="material-structure" v-model.number="form.structure">
          <option v-for="one in 4" :key="one" :value="one - 1">{{ t(`structure.${one - 1}`) }}</option>
        </select>
      </div>
    </div>
    <table>
      <thead>
        <tr>
          <th scope="col">{{ t('reference.figure') }}</th>
          <th scope="col">{{ t('reference.usual') }}</th>
          <th scope="col">{{ t('reference.from') }}</th>
          <th scope="col">{{ t('reference.to') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ keys, quantity } in RANGES" :key="keys[0]">
          <th scope="row">
            {{ t(`column.${keys[0]}`) }}<template v-if="quantity">, {{ say.sign(quantity) }}</template>
          </th>
          <td v-for="(key, at) in keys" :key="key">
            <NumberField
              :model-value="form[key] ?? null"
              class="full"
              v-bind="limits.in('material', keys[0])"
              :digits="3"
              :quantity="quantity"
              :aria-label="`${t(`column.${keys[0]}`)}, ${t(['reference.usual', 'reference.from', 'reference.to'][at]!)}`"
              empty
              @update:model-value="(value) => (form[key] = value)"
            />
            <p v-if="faults[key]" class="fault small" role="alert">{{ faults[key] }}</p>
          </td>
        </tr>
      </tbody>
    </table>
    <div class="choices">
      <div v-for="{ key, digits } in SINGLE" :key="key" class="field">
        <label :for="`material-${key}`">{{ t(`column.${key}`) }}</label>
        <NumberField
          :id="`material-${key}`"
          :model-value="form[key] ?? null"
          class="full"
          v-bind="limits.in('material', key)"
          :digits="digits"
          empty
          @update:model-value="(value) => (form[key] = value)"
        />
        <p v-if="faults[key]" class="fault small" role="alert">{{ faults[key] }}</p>
      </div>
    </div>
    <div class="field">
      <label for="material-note">{{ t('column.note') }}</label>
      <TextInput id="material-note" v-model="form.note" fluid :maxlength="limits.textLetters.value" />
    </div>
    <details>
      <summary class="word-act">{{ t('reference.cautions', form.cautions?.length ?? 0) }}</summary>
      <ul class="cautions">
        <li v-for="code in cautions" :key="code">
          <label>
            <input v-model="form.cautions" type="checkbox" :value="code" />
            <span>{{ t(`caution.${code}`) }}</span>
          </label>
        </li>
      </ul>
    </details>
    <DoubtList :doubts="doubts" />
    <p v-if="faults.whole" class="fault" role="alert">{{ faults.whole }}</p>
    <div class="acts">
      <ActButton type="button" variant="outlined" :label="t('app.cancel')" @click="router.back()" />
      <ActButton
        type="submit"
        :label="t('lot.save')"
        :loading="create.isPending.value || change.isPending.value"
      />
    </div>
  </form>
</template>

<style scoped>
.crumb {
  margin-bottom: 4px;
}

form {
  max-width: 980px;
  margin-top: 18px;
}

.choices {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(176px, 1fr));
  gap: 14px;
  align-items: end;
}

table {
  border-collapse: collapse;
}

th {
  padding: 3px 12px 3px 0;
  text-align: start;
  font-weight: 600;
}

thead th {
  font-weight: 400;
  font-size: 0.875rem;
  color: var(--ink-2);
}

td {
  padding: 3px 8px 3px 0;
  vertical-align: top;
}

summary {
  padding: 10px 0;
}

.cautions label {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr);
  gap: 12px;
  padding: 7px 0;
  font-size: 0.9375rem;
  line-height: 1.3;
}

.cautions input {
  width: 22px;
  height: 22px;
  accent-color: var(--act);
}
</style>
