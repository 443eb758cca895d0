<script setup lang="ts">
import '@/theme/controls'
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import TextInput from '@/kit/TextInput.vue'
import Select from 'primevue/select'
import { computed, reactive, ref, watch } from 'vue'
import { answered, api, type Glyph, type Measure, type VolumeWay } from '@/api/client'
import { key } from '@/api/keys'
import FormDialog from '@/kit/FormDialog.vue'
import FormField from '@/kit/FormField.vue'
import { fieldAmong } from '@/kit/refusals'
import { useRefusals } from '@/kit/useRefusals'
import { formOf, useHalfTyped } from '@/kit/useHalfTyped'
import MeasureGlyph from './MeasureGlyph.vue'
import { useLimits } from '@/api/useLimits'
import NumberField from '@/kit/NumberField.vue'
import VesselDrawing from './VesselDrawing.vue'
import { useMeasures } from './useMeasures'
import { useSay } from '@/words/useSay'
import type { Quantity } from '@/words/units'

/** Writes down a container and how its volume is known. */
const { measure } = defineProps<{ measure: Measure | null }>()
const open = defineModel<boolean>('open', { required: true })

const say = useSay()
const limits = useLimits()
const { t } = say
const { measures, add, change } = useMeasures()

type By = VolumeWay['by']
type Side =
  | 'litres'
  | 'across_cm'
  | 'height_cm'
  | 'top_cm'
  | 'bottom_cm'
  | 'length_cm'
  | 'width_cm'
  | 'count'
  | 'litres_each'

/** What is asked for each way of knowing a volume. */
const SIDES: Record<By, { key: Side; quantity?: Quantity }[]> = {
  litres: [{ key: 'litres', quantity: 'volume' }],
  cylinder: [
    { key: 'across_cm', quantity: 'length' },
    { key: 'height_cm', quantity: 'length' },
  ],
  cone: [
    { key: 'top_cm', quantity: 'length' },
    { key: 'bottom_cm', quantity: 'length' },
    { key: 'height_cm', quantity: 'length' },
  ],
  box: [
    { key: 'length_cm', quantity: 'length' },
    { key: 'width_cm', quantity: 'length' },
    { key: 'height_cm', quantity: 'length' },
  ],
  counted: [{ key: 'count' }, { key: 'litres_each', quantity: 'volume' }],
  measures: [{ key: 'count' }],
}
function limitsOf({ key, quantity }: { key: Side; quantity?: Quantity }) {
  if (key === 'count') return limits.of('counted')
  return limits.of(quantity === 'length' ? 'measure_cm' : 'measure_l')
}
const GLYPHS = [
  ...(['bucket', 'barrow', 'sack', 'cloth', 'pannier'] as const),
  ...(['basket', 'cart', 'bale', 'hand', 'other'] as const),
]

const name = ref('')
const plural = ref('')
const glyph = ref<Glyph>('other')
const by = ref<By>('litres')
const sides = reactive<Partial<Record<Side, number | null>>>({})
const of = ref<string | null>(null)
const heaped = ref<number | null>(100)
const shown = [
  'name',
  'plural',
  'heaped',
  'measure_id',
  ...Object.values(SIDES)
    .flat()
    .map(({ key }) => key),
]
const { faults, forget, tell, tried } = useRefusals('measures.stale', fieldAmong(...shown))

function begin() {
  forget()
  name.value = measure?.name ?? ''
  plural.value = measure?.plural ?? ''
  glyph.value = measure?.glyph ?? 'other'
  by.value = measure?.way.by ?? 'litres'
  heaped.value = Math.round((measure?.heaped ?? 1) * 100)
  for (const key of Object.keys(sides)) delete sides[key as Side]
  of.value = null
  if (measure) {
    for (const { key } of SIDES[measure.way.by])
      sides[key] = (measure.way as unknown as Record<Side, number>)[key]
    if (measure.way.by === 'measures') of.value = measure.way.measure_id
  }
}
const { ended } = useHalfTyped(
  () => open.value,
  () => formOf(measure),
  begin,
)

const ways = computed(() =>
  (Object.keys(SIDES) as By[])
    .filter((key) => key !== 'measures' || others.value.length > 0)
    .map((value) => ({ value, label: t(`measures.by.${value}`) })),
)
const others = computed(() =>
  (measures.value ?? [])
    .filter((one) => one.id !== measure?.id)
    .map((one) => ({ value: one.id, label: `${one.plural} (${say.litres(one.litres)})` })),
)

const way = computed<VolumeWay | null>(() => {
  const values = SIDES[by.value].map(({ key }) => sides[key])
  if (values.some((value) => value == null)) return null
  if (by.value === 'measures')
    return of.value === null ? null : { by: 'measures', count: sides.count!, measure_id: of.value }
  return Object.fromEntries([
    ['by', by.value],
    ...SIDES[by.value].map(({ key }) => [key, sides[key]]),
  ]) as VolumeWay
})

const request = computed(() => ({ way: way.value, heaped: (heaped.value ?? 100) / 100 }))
const {
  data: volume,
  isError,
  error,
} = useQuery({
  queryKey: key('volume', request),
  queryFn: ({ signal }) =>
    answered(
      api.POST('/api/measures/volume', {
        body: { way: way.value!, heaped: request.value.heaped },
        signal,
      }),
    ),
  enabled: computed(() => way.value !== null),
  placeholderData: keepPreviousData,
})
watch(error, tell)
const holds = computed(() =>
  way.value && volume.value && !isError.value ? say.litres(volume.value.litres) : '',
)

async function save() {
  forget()
  if (!name.value.trim()) faults.name = t('save.needName')
  for (const { key } of SIDES[by.value]) if (sides[key] == null) faults[key] = t('measures.needSide')
  if (by.value === 'measures' && of.value === null) faults.measure_id = t('measures.needSide')
  if (!name.value.trim() || !way.value) return
  const fields = {
    name: name.value,
    plural: plural.value.trim() || name.value,
    glyph: glyph.value,
    way: way.value,
    heaped: request.value.heaped,
  }
  await tried(async () => {
    if (measure) await change.mutateAsync({ measure, to: fields })
    else await add.mutateAsync(fields)
    ended()
    open.value = false
  })
}
</script>

<template>
  <FormDialog
    v-model:open="open"
    class="measure-dialog"
    :header="t(measure ? 'measures.editTitle' : 'measures.add')"
    :does="t('lot.save')"
    :fault="faults.whole"
    :pending="add.isPending.value || change.isPending.value"
    @save="save"
    @cancel="ended"
  >
    <div class="pair">
      <FormField id="measure-one" v-slot="{ invalid }" field="name" :label="t('lot.measureName')">
        <TextInput
          id="measure-one"
          v-model="name"
          fluid
          :maxlength="limits.letters.value"
          :invalid="invalid"
          autofocus
        />
      </FormField>
      <FormField id="measure-many" field="plural" :label="t('lot.measurePlural')">
        <TextInput id="measure-many" v-model="plural" fluid :maxlength="limits.letters.value" />
      </FormField>
    </div>
    <fieldset>
      <legend>{{ t('measures.sign') }}</legend>
      <label v-for="one in GLYPHS" :key="one" :title="t(`measures.glyph.${one}`)">
        <input
          v-model="glyph"
          type="radio"
          name="glyph"
          :value="one"
          :aria-label="t(`measures.glyph.${one}`)"
        />
        <MeasureGlyph :glyph="one" :size="28" />
      </label>
    </fieldset>
    <div class="known">
      <div>
        <div class="field">
          <span id="measure-by" class="label">{{ t('measures.known') }}</span>
          <Select
            v-model="by"
            :options="ways"
            option-label="label"
            option-value="value"
            fluid
            aria-labelledby="measure-by"
          />
        </div>
        <div class="sides">
          <FormField
            v-for="side in SIDES[by]"
            :id="`side-of-${side.key}`"
            :key="`${by}-${side.key}`"
            :field="side.key"
            :label="t(`measures.side.${side.key}`) + (side.quantity ? `, ${say.sign(side.quantity)}` : '')"
          >
            <NumberField
              :id="`side-of-${side.key}`"
              :model-value="sides[side.key] ?? null"
              class="full"
              v-bind="limitsOf(side)"
              :quantity="side.quantity"
              empty
              @update:model-value="(value) => (sides[side.key] = value)"
            />
          </FormField>
          <div v-if="by === 'measures'" class="field">
            <span id="measure-of" class="label">{{ t('measures.side.measure_id') }}</span>
            <Select
              v-model="of"
              :options="others"
              option-label="label"
              option-value="value"
              fluid
              aria-labelledby="measure-of"
            />
            <p v-if="faults.measure_id" class="fault" role="alert">{{ faults.measure_id }}</p>
          </div>
          <FormField id="measure-heaped" field="heaped" :label="t('measures.heaped')">
            <NumberField
              id="measure-heaped"
              v-model="heaped"
              class="full"
              :min="limits.of('heaped').min * 100"
              :max="limits.of('heaped').max * 100"
              :digits="0"
              :step="5"
            />
          </FormField>
        </div>
      </div>
      <VesselDrawing :by="by" :sides="sides" :heaped="(heaped ?? 100) / 100" :holds="holds" />
    </div>
  </FormDialog>
</template>

<style>
.measure-dialog.p-dialog {
  width: min(660px, calc(100vw - 16px));
  max-height: calc(100dvh - 16px);
}
</style>

<style scoped>
fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin: 0;
  padding: 0;
  border: 0;
}

legend {
  margin-bottom: 4px;
  font-weight: 600;
}

fieldset label {
  display: grid;
  place-items: center;
  width: 46px;
  height: 46px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  cursor: pointer;
}

fieldset label:has(:checked) {
  border: 2px solid var(--act);
  background: var(--tint);
}

fieldset label:has(:focus-visible) {
  outline: 3px solid var(--act);
  outline-offset: 2px;
}

fieldset input {
  position: absolute;
  opacity: 0;
}

.known {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 210px;
  gap: 18px;
  align-items: end;
}

.sides {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 12px;
  margin-top: 12px;
}

/* Labels, inputs and what is refused each in a row, however many lines they take. */
.sides .field {
  display: grid;
  grid-row: span 3;
  grid-template-rows: subgrid;
  row-gap: 0;
  align-items: end;
}

.sides .field .fault {
  align-self: start;
}

@media (max-width: 639px) {
  .known {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
