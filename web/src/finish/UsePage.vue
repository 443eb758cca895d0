<script setup lang="ts">
import { v7 } from 'uuid'
import { computed, reactive, ref, watch } from 'vue'
import type { ApplyRequest } from '@/api/client'
import ActButton from '@/kit/ActButton.vue'
import FormField from '@/kit/FormField.vue'
import NumberField from '@/kit/NumberField.vue'
import { useAttempt } from '@/kit/useAttempt'
import { useSlip } from '@/kit/useSlip'
import { useFollows } from '@/tend/useFollows'
import { useSay } from '@/words/useSay'
import UseDrawing from './UseDrawing.vue'
import { useAt } from './grounds'
import { useApply } from './useApply'
import { useFinish, useGrounds } from './useFinish'
import { useStuff } from './useStuff'
import { ASKED, type AskedName, askedOf, TREE_AGES, useOf, USES, usualSizes } from './uses'

/** How much compost a use needs, and how far a heap goes: both ways round, to scale, in barrows and buckets. */
const {
  heap: given = null,
  compost: chosen = null,
  ground: where = null,
} = defineProps<{ heap?: string | null; compost?: string | null; ground?: string | null }>()
const say = useSay()
const { t } = say
const { picked, built, composts, stored, stuff, salts, off } = useStuff(given, chosen)

const asked = ref<AskedName>('topdress')
const kind = computed(() => askedOf(asked.value).kind)
const sizes = reactive(usualSizes())
const { grounds } = useGrounds()
const place = ref(where ?? '')
const there = computed(() => grounds.value?.find(({ id }) => id === place.value) ?? null)
// A place says what is usual there, and how large it is.
watch(
  () => there.value?.id,
  () => {
    if (!there.value) return
    const usual = useAt(there.value)
    asked.value = usual.name
    Object.assign(sizes[usual.name], usual.sizes)
  },
  { immediate: true },
)
/** By how long trees have stood, what each gets. */
const age = computed({
  get: () => TREE_AGES.find(({ litres }) => litres === sizes.trees.litres_each)?.age ?? '',
  set: (of) => {
    const litres = TREE_AGES.find((one) => one.age === of)?.litres
    if (litres) sizes.trees.litres_each = litres
  },
})
/** A tonne to the hectare is a hundred grams to the square metre. */
const perM2 = computed(() => t('apply.perM2', { kg: say.kg((sizes.field.t_per_ha ?? 0) / 10) }))
const use = computed(() => useOf(kind.value, sizes[asked.value]))
const { rules } = useFollows()
const body = computed<ApplyRequest | null>(() => {
  const { density_kg_l, moisture_pct, litres, n_pct, p_pct, k_pct } = stuff
  if (!use.value || density_kg_l === null || moisture_pct === null) return null
  return {
    format: 'zymarch-apply/1',
    compost: { density_kg_l, moisture_pct, litres, n_pct, p_pct, k_pct, ec_ds_m: salts.value },
    use: use.value,
    n_limit_kg_ha: rules.value?.local.n_limit_kg_ha ?? null,
  }
})
const { told } = useApply(body)

/** The size that what there is does, in the unit of the use. */
const far = computed(() => {
  const size = told.value?.goes_how_far
  if (size == null) return ''
  const counted = kind.value === 'pits' || kind.value === 'trees'
  return t(`apply.far.${kind.value}`, {
    size: say.whole(counted ? Math.floor(size + 1e-9) : size),
    litres: say.litres(Number(size.toPrecision(3))),
  })
})
const headline = computed(() => {
  if (!told.value) return t('apply.title')
  const need = say.bulk(told.value.need_l, true)
  if (told.value.enough === null || told.value.enough === undefined) return t('apply.need', { need })
  return t(told.value.enough ? 'apply.does' : 'apply.doesNot', { need, far: far.value })
})
function kg(value: number | null | undefined, range: [number, number] | null): string {
  if (value == null) return t('apply.notKnown')
  if (!range) return say.kg(value)
  const [low, high] = range.map((share) => say.fine(share * value))
  return t('apply.about', { kg: say.kg(value), low: low!, high: high! })
}
const rows = computed(() => {
  const of = told.value
  if (!of) return []
  const season = of.first_season_n_kg
  return [
    [t('apply.row.need'), `${say.bulk(of.need_l, true)}, ${say.litres(of.need_l)}, ${say.kg(of.need_kg)}`],
    [t('apply.row.far'), far.value || t('apply.notKnown')],
    [t('apply.row.n'), kg(of.n_kg, off('n-pct', stuff.n_pct))],
    [
      t('apply.row.season'),
      season
        ? t('apply.range', { low: say.fine(season[0]!), high: `${say.fine(season[1]!)} ${say.sign('mass')}` })
        : t('apply.notKnown'),
    ],
    [t('apply.row.p'), kg(of.p_kg, off('p-pct', stuff.p_pct))],
    [t('apply.row.k'), kg(of.k_kg, off('k-pct', stuff.k_pct))],
    ...(of.n_kg_per_ha == null
      ? []
      : [[t('apply.row.ha'), t('apply.perHa', { n: say.whole(of.n_kg_per_ha) })]]),
  ]
})
const minds = computed(() =>
  (told.value?.findings ?? []).map(({ code, value, limit }) =>
    t(`apply.mind.${code}`, {
      value: say.whole(value ?? 0),
      limit: say.whole(limit ?? 0),
      missing: say.bulk(value ?? 0),
    }),
  ),
)

const { use: goes, takeBack } = useFinish()
const { attempt } = useAttempt()
const slip = useSlip()
const isSending = ref(false)
/** The use as large as what there is does. */
function takeAll() {
  const far = told.value?.goes_how_far
  if (far == null) return
  const field = USES[kind.value][0]!.field
  // What is counted is whole; the rest a little less, so that it does.
  const isCounted = field === 'count'
  sizes[asked.value][field] = isCounted ? Math.floor(far + 1e-9) : Math.floor(far * 100) / 100
}
/** Writes down that it went there. */
async function write() {
  const [of, what] = [stored.value, use.value]
  if (!of || !what || isSending.value) return
  isSending.value = true
  const entry = v7()
  const done = await attempt(() => goes(of, { entry, ground: place.value || null, use: what }))
  isSending.value = false
  if (!done) return
  slip.said({
    text: t(there.value ? 'apply.wentTo' : 'apply.went', {
      bulk: say.bulk(told.value?.need_l ?? 0),
      where: there.value?.name ?? '',
    }),
    undoLabel: t('app.undo'),
    undo: () => void attempt(() => takeBack(of, entry)),
  })
}
const COMPOST = [
  ['litres', 'volume', 1, 1e7],
  ['density_kg_l', 'density', 0.05, 2],
  ['moisture_pct', undefined, 0, 95],
  ['n_pct', undefined, 0, 30],
  ['p_pct', undefined, 0, 30],
  ['k_pct', undefined, 0, 30],
] as const
</script>

<template>
  <header class="page-head">
    <div aria-live="polite">
      <h1>{{ headline }}</h1>
      <p>{{ t('apply.hint') }}</p>
    </div>
  </header>
  <div class="columns">
    <form @submit.prevent>
      <fieldset>
        <legend class="ruled">{{ t('apply.for') }}</legend>
        <div class="kinds">
          <button
            v-for="one in ASKED"
            :key="one.name"
            type="button"
            :aria-pressed="asked === one.name"
            @click="asked = one.name"
          >
            {{ t(`apply.kind.${one.name}`) }}
          </button>
        </div>
        <FormField v-if="grounds?.length" id="use-ground" field="ground" :label="t('apply.ground')">
          <select id="use-ground" v-model="place" class="full">
            <option value="">{{ t('apply.noGround') }}</option>
            <option v-for="one in grounds" :key="one.id" :value="one.id">{{ one.name }}</option>
          </select>
        </FormField>
        <FormField v-if="kind === 'trees'" id="use-age" field="age" :label="t('apply.age')">
          <select id="use-age" v-model="age" class="full">
            <option value="">{{ t('apply.ageOwn') }}</option>
            <option v-for="one in TREE_AGES" :key="one.age" :value="one.age">
              {{ t(`apply.ages.${one.age}`, { each: say.litres(one.litres) }) }}
            </option>
          </select>
        </FormField>
        <div class="fields">
          <FormField
            v-for="of in USES[kind]"
            :id="`use-${of.field}`"
            :key="`${kind} ${of.field}`"
            :field="`use.${of.field}`"
            :label="t(`apply.field.${of.field}`, { unit: of.quantity ? say.sign(of.quantity) : '' })"
            :hint="of.field === 't_per_ha' ? perM2 : undefined"
          >
            <NumberField
              :id="`use-${of.field}`"
              v-model="sizes[asked][of.field]!"
              class="full"
              :quantity="of.quantity"
              :min="of.min"
              :max="of.max"
              empty
            />
          </FormField>
        </div>
      </fieldset>
      <fieldset>
        <legend class="ruled">{{ t('apply.compost') }}</legend>
        <FormField id="use-heap" field="heap" :label="t('apply.heap')">
          <select id="use-heap" v-model="picked" class="full">
            <option value="">{{ t('apply.noHeap') }}</option>
            <optgroup v-if="composts?.length" :label="t('nav.compost')">
              <option v-for="one in composts" :key="one.id" :value="`compost ${one.id}`">
                {{ t('apply.takenOut', { name: one.name, day: say.day(one.harvested_at.slice(0, 10)) }) }}
              </option>
            </optgroup>
            <optgroup v-if="built.length" :label="t('nav.heaps')">
              <option v-for="one in built" :key="one.id" :value="`heap ${one.id}`">{{ one.name }}</option>
            </optgroup>
          </select>
        </FormField>
        <div class="fields">
          <FormField
            v-for="[field, quantity, min, max] in COMPOST"
            :id="`compost-${field}`"
            :key="field"
            :field="`compost.${field}`"
            :label="t(`apply.field.${field}`, { unit: quantity ? say.sign(quantity) : '' })"
          >
            <NumberField
              :id="`compost-${field}`"
              v-model="stuff[field]"
              class="full"
              :quantity="quantity"
              :min="min"
              :max="max"
              empty
            />
          </FormField>
        </div>
        <p class="quiet small">{{ t('apply.usual') }}</p>
      </fieldset>
    </form>
    <section :aria-label="t('apply.answer')">
      <template v-if="told && use">
        <UseDrawing :use="use" :told="told" />
        <dl>
          <div v-for="[name, value] in rows" :key="name">
            <dt>{{ name }}</dt>
            <dd>{{ value }}</dd>
          </div>
        </dl>
        <p v-if="stored && !stored.shown_hot" class="warned">{{ t('compost.notShown') }}</p>
        <p v-if="kind === 'extract'">{{ t('apply.brew') }}</p>
        <ul v-if="minds.length" class="minds">
          <li v-for="mind in minds" :key="mind">{{ mind }}</li>
        </ul>
        <div v-if="stored" class="acts" data-deed="work">
          <ActButton
            :label="there ? t('apply.writeTo', { where: there.name }) : t('apply.write')"
            :loading="isSending"
            :disabled="told.enough === false"
            @click="write"
          />
          <ActButton
            v-if="told.enough === false"
            variant="outlined"
            :label="t('apply.all', { far })"
            @click="takeAll"
          />
          <ActButton variant="outlined" to="/compost" :label="t('nav.compost')" />
        </div>
        <p class="quiet small">{{ t('apply.care') }}</p>
      </template>
    </section>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 20px 36px;
  margin-top: 18px;
}

form {
  display: grid;
  gap: 20px;
  align-content: start;
}

fieldset {
  min-width: 0;
  margin: 0;
  padding: 0;
  border: 0;
}

legend {
  width: 100%;
  font-weight: 640;
}

.kinds {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(128px, 1fr));
  gap: 8px;
  margin: 8px 0 14px;
}

.kinds button {
  min-height: 46px;
  padding: 4px 10px;
  border: 1px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--sheet);
  font-weight: 600;
  cursor: pointer;
}

.kinds button[aria-pressed='true'] {
  border-color: var(--act);
  background: var(--tint);
  box-shadow: inset 0 0 0 2px var(--act);
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 10px 18px;
  margin-top: 10px;
}

select {
  min-height: 44px;
  padding: 6px 8px;
  border: 1px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--sheet);
  color: inherit;
  font: inherit;
}

dl > div {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr);
  gap: 10px;
  padding: 7px 0;
  border-bottom: 1px solid var(--line);
}

dd {
  font-weight: 600;
}

.warned {
  padding-left: 12px;
  border-left: 4px solid var(--act);
}

.minds {
  margin: 12px 0 12px 18px;
  list-style: disc;
}

@media (max-width: 859px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
