<script setup lang="ts">
import '@/theme/controls'
import ActButton from '@/kit/ActButton.vue'
import TextInput from '@/kit/TextInput.vue'
import Select from 'primevue/select'
import { computed, reactive, ref, watch } from 'vue'
import { type Lot, type LotFields, type Material, type OwnFigures } from '@/api/client'
import FormDialog from '@/kit/FormDialog.vue'
import FormField from '@/kit/FormField.vue'
import { fieldAmong } from '@/kit/refusals'
import { useRefusals } from '@/kit/useRefusals'
import { formOf, useHalfTyped } from '@/kit/useHalfTyped'
import CautionList from './CautionList.vue'
import NumberField from '@/kit/NumberField.vue'
import MaterialPicker from './MaterialPicker.vue'
import { useAbout, useMaterials } from '@/farm/useFarm'
import { useLimits } from '@/api/useLimits'
import { useSay } from '@/words/useSay'
import { fieldsOf, useLotChanges } from './useStock'
import { useMeasures } from './useMeasures'
import { useUnits } from '@/words/useUnits'
import { useWeight } from './useWeight'

/** Writes down a lot: what it is, how much in which container, and own figures if there are any. */
const { lot } = defineProps<{ lot: Lot | null }>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ sortedOut: [material: Material] }>()

const say = useSay()
const { t } = say
const units = useUnits()
const limits = useLimits()
const { byId } = useMaterials()
const { add, change } = useLotChanges()
const { measures, add: addMeasure } = useMeasures()

/** Weighed, in litres, in a new measure, or in the measure of this id. */
type UnitChoice = 'kg' | 'litre' | 'new' | (string & {})
const material = ref<Material | null>(null)
const label = ref('')
const amount = ref<number | null>(null)
const unit = ref<UnitChoice>('kg')
const own = reactive<OwnFigures>({})
const gathered = ref('')
const price = ref<number | null>(null)
const today = computed(() => about.value?.today ?? '')
const { about } = useAbout()
const measure = reactive({ name: '', plural: '', litres: null as number | null })
const OWN = [
  { key: 'moisture_pct', label: 'lot.moisture', digits: 1, quantity: undefined },
  { key: 'n_pct', label: 'lot.nitrogen', digits: 2, quantity: undefined },
  { key: 'c_n', label: 'lot.ratio', digits: 1, quantity: undefined },
  { key: 'density_kg_l', label: 'lot.density', digits: 3, quantity: 'density' },
] as const
const SHOWN = fieldAmong('material', 'amount', 'gathered_on', 'price', 'label', ...OWN.map(({ key }) => key))
/** A new container is refused in the one line that stands for all of it. */
const fieldOf = (path: string) => (path in measure || path === 'measure_id' ? 'measure' : SHOWN(path))
const { faults, tried } = useRefusals('lot.stale', fieldOf)

const { ended } = useHalfTyped(
  () => open.value,
  () => formOf(lot),
  begin,
)

function begin() {
  forget(own)
  Object.assign(measure, { name: '', plural: '', litres: null })
  material.value = lot ? (byId.value.get(lot.material) ?? null) : null
  label.value = lot?.label ?? ''
  amount.value = lot?.amount ?? null
  unit.value = lot ? (lot.measure_id ?? (lot.unit as 'kg' | 'litre')) : (measures.value?.at(0)?.id ?? 'kg')
  Object.assign(own, lot?.own)
  price.value = lot?.price ?? null
  gathered.value = lot ? (lot.gathered_on ?? lot.created_at.slice(0, 10)) : today.value
}

// All that is known of the materials may come after the form.
watch(byId, (known) => {
  if (open.value && lot && !material.value) material.value = known.get(lot.material) ?? null
})

const choices = computed(() => [
  ...(measures.value ?? []).map((one) => ({
    value: one.id as UnitChoice,
    label: `${one.plural} (${say.litres(one.litres)})`,
  })),
  { value: 'kg' as UnitChoice, label: t('lot.kgUnit', { unit: say.sign('mass') }) },
  { value: 'litre' as UnitChoice, label: t('lot.litreUnit', { unit: say.sign('volume') }) },
  { value: 'new' as UnitChoice, label: t('lot.newMeasure') },
])

function bookOf(key: (typeof OWN)[number]['key']): string {
  const spread = material.value?.[key]
  if (!spread) return ''
  const shown = (value: number) => say.exact(key === 'density_kg_l' ? units.shown(value, 'density') : value)
  const range = { value: shown(spread.typical), low: shown(spread.low), high: shown(spread.high) }
  const tested = lot?.tests.find((test) => test.figure === key)
  if (tested) return t('lot.tested', { value: shown(tested.value), day: say.day(tested.on) })
  return t(material.value?.is_own ? 'lot.rangeOwn' : 'lot.range', range)
}

const figures = computed(
  () => Object.fromEntries(Object.entries(own).filter(([, value]) => value != null)) as OwnFigures,
)

/** What one of is priced: a barrow, a kilogram, a litre. */
const priceOf = computed(() => {
  if (unit.value === 'kg' || unit.value === 'litre') return say.sign(unit.value === 'kg' ? 'mass' : 'volume')
  return measures.value?.find((one) => one.id === unit.value)?.name ?? measure.name
})
const litresEach = computed(() => measures.value?.find((one) => one.id === unit.value)?.litres)
const weighed = useWeight(
  computed(() => {
    if (!material.value || !amount.value) return null
    const item = { material: material.value.id, ...figures.value }
    if (unit.value === 'kg') return { ...item, kg: amount.value }
    if (unit.value === 'litre') return { ...item, litres: amount.value }
    return litresEach.value ? { ...item, litres: amount.value * litresEach.value } : null
  }),
)

function forget(record: object) {
  for (const key of Object.keys(record)) delete (record as Record<string, unknown>)[key]
}

async function fields(): Promise<LotFields | null> {
  if (!material.value) faults.material = t('lot.needMaterial')
  if (amount.value === null) faults.amount = t('lot.needAmount')
  const isNew = unit.value === 'new'
  if (isNew && (!measure.name.trim() || !measure.litres)) faults.measure = t('lot.needMeasure')
  if (Object.keys(faults).length || !material.value || amount.value === null) return null
  const chosen = isNew ? (await newMeasure()).id : unit.value
  unit.value = chosen
  return {
    material: material.value.id,
    label: label.value.trim() || null,
    amount: amount.value,
    unit: chosen === 'kg' || chosen === 'litre' ? chosen : 'measure',
    measure_id: chosen === 'kg' || chosen === 'litre' ? null : chosen,
    own: figures.value,
    gathered_on: gathered.value || null,
    price: price.value,
  }
}

function newMeasure() {
  const name = measure.name.trim()
  return addMeasure.mutateAsync({
    name,
    plural: measure.plural.trim() || name,
    way: { by: 'litres', litres: measure.litres ?? 0 },
    glyph: 'other',
  })
}

async function save(goesOn: boolean) {
  await tried(async () => {
    const wanted = await fields()
    if (!wanted) return
    if (lot) await change.mutateAsync({ lot, to: { ...fieldsOf(lot), ...wanted } })
    else await add.mutateAsync(wanted)
    if (!goesOn) {
      ended()
      return (open.value = false)
    }
    // The same container again: what is written down next is most often carried in it too.
    const kept = unit.value
    begin()
    unit.value = kept
    document.getElementById('lot-material')?.focus()
  })
}
</script>

<template>
  <FormDialog
    v-model:open="open"
    class="lot-dialog"
    :header="t(lot ? 'lot.editTitle' : 'lot.addTitle')"
    :does="t(lot ? 'lot.save' : 'lot.saveAdd')"
    :next="lot ? undefined : t('lot.saveNext')"
    :fault="faults.whole"
    :pending="add.isPending.value || change.isPending.value"
    :disabled="material?.must_not_go_in"
    @save="save"
    @cancel="ended"
  >
    <FormField id="lot-material" v-slot="{ invalid }" field="material" :label="t('lot.material')">
      <MaterialPicker v-model="material" input-id="lot-material" :invalid="invalid" />
    </FormField>
    <CautionList v-if="material?.must_not_go_in" :material="material" moment="stock" />
    <ActButton
      v-if="material?.must_not_go_in"
      type="button"
      :label="t('sorted.instead')"
      @click="emit('sortedOut', material)"
    />
    <div v-else class="pair">
      <FormField id="lot-amount" field="amount" :label="t('lot.amount')">
        <NumberField
          id="lot-amount"
          v-model="amount"
          class="full"
          v-bind="limits.of('amount')"
          :quantity="unit === 'kg' ? 'mass' : unit === 'litre' ? 'volume' : undefined"
          empty
        />
      </FormField>
      <div class="field">
        <span id="lot-unit" class="label">{{ t('lot.unit') }}</span>
        <Select
          v-model="unit"
          :options="choices"
          option-label="label"
          option-value="value"
          fluid
          aria-labelledby="lot-unit"
          scroll-height="320px"
        />
      </div>
    </div>
    <p class="quiet weight" aria-live="polite">
      {{ weighed ? t('lot.weighs', { kg: say.kg(weighed.kg), litres: say.litres(weighed.litres) }) : '' }}
    </p>
    <CautionList v-if="material && !material.must_not_go_in" :material="material" moment="stock" />
    <div v-if="unit === 'new'" class="trio">
      <div class="field">
        <label for="measure-name">{{ t('lot.measureName') }}</label>
        <TextInput
          id="measure-name"
          v-model="measure.name"
          fluid
          :maxlength="limits.letters.value"
          :invalid="!!faults.measure"
        />
      </div>
      <div class="field">
        <label for="measure-plural">{{ t('lot.measurePlural') }}</label>
        <TextInput id="measure-plural" v-model="measure.plural" fluid :maxlength="limits.letters.value" />
      </div>
      <div class="field">
        <label for="measure-litres">{{ t('lot.measureLitres', { unit: say.sign('volume') }) }}</label>
        <NumberField
          id="measure-litres"
          v-model="measure.litres"
          class="full"
          v-bind="limits.of('measure_l')"
          quantity="volume"
          empty
        />
      </div>
      <p v-if="faults.measure" class="fault" role="alert">{{ faults.measure }}</p>
    </div>
    <FormField id="lot-gathered" field="gathered_on" :label="t('lot.gathered')">
      <input id="lot-gathered" v-model="gathered" type="date" class="full" :max="today" />
    </FormField>
    <FormField
      id="lot-price"
      field="price"
      :label="t('lot.price', { unit: priceOf })"
      :hint="t('lot.priceHint')"
    >
      <NumberField id="lot-price" v-model="price" class="full" v-bind="limits.of('amount')" empty />
    </FormField>
    <FormField
      id="lot-label"
      v-slot="{ described }"
      field="label"
      :label="t('lot.label')"
      :hint="t('lot.labelHint')"
    >
      <TextInput
        id="lot-label"
        v-model="label"
        fluid
        :maxlength="limits.letters.value"
        :aria-describedby="described"
      />
    </FormField>
    <details :open="Object.keys(lot?.own ?? {}).length > 0">
      <summary>{{ t('lot.own') }}</summary>
      <p class="quiet small">{{ t('lot.ownHint') }}</p>
      <div class="pair">
        <FormField
          v-for="figure in OWN"
          :id="`own-${figure.key}`"
          :key="figure.key"
          :field="figure.key"
          :label="t(figure.label, { unit: say.sign('density') })"
          :hint="bookOf(figure.key)"
        >
          <NumberField
            :id="`own-${figure.key}`"
            :model-value="own[figure.key] ?? null"
            class="full"
            v-bind="limits.in('own', figure.key)"
            :digits="figure.digits"
            :quantity="figure.quantity"
            empty
            @update:model-value="(value) => (own[figure.key] = value)"
          />
        </FormField>
      </div>
    </details>
  </FormDialog>
</template>

<style>
.lot-dialog.p-dialog {
  width: min(620px, calc(100vw - 16px));
  max-height: calc(100dvh - 16px);
}
</style>

<style scoped>
.trio {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(140px, 1fr));
  gap: 14px;
  padding: 12px;
  background: var(--paper-2);
}

.weight {
  min-height: 1.4em;
  margin-top: -8px;
}

summary {
  min-height: 44px;
  padding: 10px 0;
  color: var(--act);
  font-weight: 600;
  cursor: pointer;
}
</style>
