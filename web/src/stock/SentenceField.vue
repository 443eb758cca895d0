<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, reactive, ref, watch } from 'vue'
import { answered, api, type BatchPart, type SayUnknown } from '@/api/client'
import { useLimits } from '@/api/useLimits'
import NumberField from '@/kit/NumberField.vue'
import { told } from '@/kit/refusals'
import { useSay } from '@/words/useSay'
import { amountOf, partFrom, pieces } from './sentence'
import { useStock } from './useStock'

/**
 * What there is, said in one sentence: what is understood is given on at once, and what is not
 * is marked in the text and asked back until it is told or left out.
 */
const { does } = defineProps<{
  /** What the button that reads it says. */
  does: string
}>()
/** Whether something is still asked back. */
const asking = defineModel<boolean>('asking')
const emit = defineEmits<{ take: [parts: BatchPart[], water_l: number] }>()

const say = useSay()
const { t } = say
const limits = useLimits()
const { lots, measures } = useStock()

const text = ref('')
const read = ref('')
const fault = ref('')
const isReading = ref(false)

/** Something asked back, with what is told of it so far. */
interface Ask extends SayUnknown {
  count: number | null
  /** `kg`, `litre` or the id of a measure. */
  in: string
}
const asks = ref<Ask[]>([])
watch(
  () => asks.value.length > 0,
  (isAsking) => (asking.value = isAsking),
  { flush: 'sync' },
)

async function submit() {
  fault.value = ''
  if (!text.value.trim()) {
    fault.value = t('say.empty')
    return
  }
  isReading.value = true
  try {
    const said = await answered(
      api.POST('/api/say', {
        body: {
          format: 'zymarch-say/1',
          text: text.value,
          measures: (measures.value ?? []).map(({ id, litres, name, plural }) => ({
            id,
            litres,
            name,
            plural,
          })),
          lots: (lots.value ?? []).flatMap(({ id, label, material }) =>
            label ? [{ id, name: label, material }] : [],
          ),
        },
      }),
    )
    const parts = said.items.flatMap((item) => {
      const amount = amountOf(item)
      return amount ? [partFrom(item, amount, lots.value ?? [], measures.value ?? [])] : []
    })
    asks.value = said.unknown.map((one) => reactive({ ...one, count: one.amount ?? null, in: firstUnit() }))
    read.value = text.value
    if (!parts.length && !asks.value.length && said.water_l <= 0) fault.value = t('say.nothing')
    else text.value = ''
    if (parts.length || said.water_l > 0) emit('take', parts, said.water_l)
  } catch (failure) {
    fault.value = told(failure, { noServer: t('app.noServer') })
  } finally {
    isReading.value = false
  }
}

const firstUnit = () =>
  measures.value?.find((one) => one.glyph === 'barrow')?.id ?? measures.value?.[0]?.id ?? 'kg'
const units = computed(() => [
  ...(measures.value ?? []).map((one) => ({ value: one.id, label: one.plural })),
  { value: 'kg', label: say.sign('mass') },
  { value: 'litre', label: say.sign('volume') },
])

const marked = computed(() => pieces(read.value, asks.value))
const spoken = ({ text: said }: Ask) => said.trim()

function drop(ask: Ask) {
  asks.value = asks.value.filter((one) => one !== ask)
}

/** Gives on what is now known of it, or asks for what is still missing. */
function settle(ask: Ask) {
  const amount = amountOf(ask)
  if (!ask.material) return
  if (!amount) {
    ask.what = ask.amount != null && ask.amount > 0 ? 'measure' : 'amount'
    ask.nearest = ask.what === 'measure' ? (measures.value ?? []).slice(0, 3).map((one) => one.id) : []
    return
  }
  emit(
    'take',
    [partFrom({ material: ask.material, lot: ask.lot }, amount, lots.value ?? [], measures.value ?? [])],
    0,
  )
  drop(ask)
}

function choose(ask: Ask, id: string) {
  if (ask.what === 'material') ask.material = id
  else ask.measure = id
  settle(ask)
}

function setAmount(ask: Ask) {
  if (!ask.count) return
  if (ask.in === 'kg') ask.kg = ask.count
  else if (ask.in === 'litre') ask.litres = ask.count
  else Object.assign(ask, { amount: ask.count, measure: ask.in })
  settle(ask)
}

function choiceName(ask: Ask, id: string): string {
  if (ask.what === 'material') return say.nameOf(id)
  return measures.value?.find((one) => one.id === id)?.plural ?? id
}

function onKey(event: KeyboardEvent) {
  // A line of its own with Shift; else what is typed is meant.
  if (event.key !== 'Enter' || event.shiftKey) return
  event.preventDefault()
  void submit()
}
</script>

<template>
  <div class="sentence">
    <form novalidate @submit.prevent="submit">
      <label for="sentence">{{ t('say.label') }}</label>
      <textarea
        id="sentence"
        v-model="text"
        rows="2"
        :maxlength="limits.textLetters.value"
        :placeholder="t('say.hint')"
        :aria-invalid="!!fault || undefined"
        aria-describedby="sentence-said"
        @keydown="onKey"
      />
      <p id="sentence-said" role="alert" class="fault">{{ fault }}</p>
      <ActButton type="submit" :label="does" :loading="isReading" />
    </form>
    <div v-if="asks.length" class="asked" aria-live="polite">
      <p class="said">
        <template v-for="(piece, at) in marked" :key="at">
          <mark v-if="piece.isUnknown">{{ piece.text }}</mark>
          <template v-else>{{ piece.text }}</template>
        </template>
      </p>
      <fieldset v-for="ask in asks" :key="ask.from">
        <legend>
          {{ t(`say.ask.${ask.what}`, { text: spoken(ask) }) }}
        </legend>
        <div class="choices">
          <ActButton
            v-for="id in ask.nearest"
            :key="id"
            variant="outlined"
            :label="choiceName(ask, id)"
            @click="choose(ask, id)"
          />
          <template v-if="ask.what === 'amount'">
            <NumberField
              v-model="ask.count"
              v-bind="limits.of('amount')"
              empty
              :aria-label="t('say.amountOf', { name: say.nameOf(ask.material ?? '') })"
            />
            <select v-model="ask.in" :aria-label="t('lot.unit')">
              <option v-for="unit in units" :key="unit.value" :value="unit.value">{{ unit.label }}</option>
            </select>
            <ActButton :label="t('say.put')" :disabled="!ask.count" @click="setAmount(ask)" />
          </template>
          <button
            type="button"
            class="word-act"
            :aria-label="t('say.dropNamed', { text: spoken(ask) })"
            @click="drop(ask)"
          >
            {{ t('say.drop') }}
          </button>
        </div>
      </fieldset>
    </div>
  </div>
</template>

<style scoped>
.sentence {
  margin-bottom: 18px;
}

form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 6px 12px;
  align-items: end;
}

label {
  grid-column: 1 / -1;
  font-weight: 600;
}

textarea {
  grid-column: 1 / -1;
  width: 100%;
  min-height: 64px;
  padding: 8px 12px;
  border: 1.5px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  line-height: 1.35;
  resize: vertical;
}

textarea:focus-visible {
  outline: 3px solid var(--act);
  outline-offset: 1px;
}

.fault {
  margin: 0;
}

.said {
  margin: 12px 0 4px;
  overflow-wrap: anywhere;
}

mark {
  padding: 0 2px;
  background: var(--tint);
  color: inherit;
  text-decoration: underline wavy var(--alarm);
}

fieldset {
  margin: 10px 0 0;
  padding: 0;
  border: 0;
}

legend {
  font-weight: 600;
}

.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-top: 4px;
}

.choices :deep(input) {
  width: 92px;
}

.choices select {
  width: auto;
}
</style>
