<script setup lang="ts">
import TextInput from '@/kit/TextInput.vue'
import { computed } from 'vue'
import FormField from '@/kit/FormField.vue'
import NumberField from '@/kit/NumberField.vue'
import AmountStepper from '@/kit/AmountStepper.vue'
import { useSay } from '@/words/useSay'
import { useUnits } from '@/words/useUnits'
import TendItems from './TendItems.vue'
import { FORMS, type FormField as Field, toggled, type TendKind, type Typed } from './forms'

/** The fields of one kind, whatever they are. */
const { kind } = defineProps<{ kind: TendKind }>()
const typed = defineModel<Typed>({ required: true })
const emit = defineEmits<{ chosen: [] }>()

const say = useSay()
const { t } = say
const units = useUnits()
const fields = computed(() => FORMS[kind])

function put(field: string, value: unknown) {
  typed.value = { ...typed.value, [field]: value }
}
/** Which words a choice is said in. */
const GROUPS: Record<string, string> = {
  place: 'place',
  smell: 'smelled',
  signs: 'sign',
  spread: 'spread',
  with: 'coverWith',
  how: 'airBy',
  grew: 'grew',
}
const group = (of: Field) =>
  of.field === 'feel' ? (kind === 'squeeze' ? 'squeezed' : 'feel') : (GROUPS[of.field] ?? of.field)

function choose(of: Field, word: string) {
  put(of.field, word)
  if (fields.value.length === 1) emit('chosen')
}
const label = (of: Field) => {
  const unit = of.as === 'number' && of.quantity ? units.sign(of.quantity) : ''
  return t(`tend.field.${of.field}`, { unit })
}

const bucket = computed(() => say.bucket())
const poured = (field: string) => Number(typed.value[field] ?? 0) / (bucket.value?.litres ?? 1)
const pour = (field: string, count: number) => put(field, count * (bucket.value?.litres ?? 1))
</script>

<template>
  <template v-for="(of, nth) in fields" :key="of.field">
    <fieldset v-if="of.as === 'choice' || of.as === 'choices'" class="choice">
      <legend>{{ label(of) }}</legend>
      <div class="words" :class="{ few: of.field === 'feel' }">
        <button
          v-for="word in of.words"
          :key="word"
          type="button"
          :aria-pressed="
            of.as === 'choice' ? typed[of.field] === word : (typed[of.field] as string[]).includes(word)
          "
          @click="
            of.as === 'choice' ? choose(of, word) : put(of.field, toggled(typed[of.field] as string[], word))
          "
        >
          <b>{{ t(`tend.${group(of)}.${word}`) }}</b>
          <span v-if="of.field === 'feel'" class="small">{{ t(`tend.${group(of)}Hint.${word}`) }}</span>
        </button>
      </div>
    </fieldset>
    <FormField v-else-if="of.as === 'number'" :id="`tend-${of.field}`" :field="of.field" :label="label(of)">
      <NumberField
        :id="`tend-${of.field}`"
        :model-value="(typed[of.field] as number | null) ?? null"
        class="full"
        :min="of.min"
        :max="of.max"
        :quantity="of.quantity"
        empty
        :autofocus="nth === 0"
        @update:model-value="(value: number | null) => put(of.field, value)"
      />
    </FormField>
    <div v-else-if="of.as === 'poured'" class="field">
      <span class="label">{{ label(of) }}</span>
      <div class="poured">
        <AmountStepper
          :name="t('tend.field.litres')"
          :model-value="poured(of.field)"
          :quantity="bucket ? null : 'volume'"
          :step="bucket ? 1 : 10"
          @update:model-value="(count: number) => pour(of.field, count)"
        />
        <span>{{
          bucket ? say.unitWord('measure', bucket.id, poured(of.field)) : units.sign('volume')
        }}</span>
        <span v-if="bucket" class="quiet small">{{ say.litres(Number(typed[of.field] ?? 0)) }}</span>
      </div>
    </div>
    <TendItems
      v-else-if="of.as === 'items'"
      :model-value="typed[of.field] as never"
      @update:model-value="(items) => put(of.field, items)"
    />
    <FormField v-else :id="`tend-${of.field}`" :field="of.field" :label="label(of)">
      <TextInput
        :id="`tend-${of.field}`"
        :model-value="(typed[of.field] as string) ?? ''"
        fluid
        :maxlength="200"
        @update:model-value="(value?: string | null) => put(of.field, value ?? '')"
      />
    </FormField>
  </template>
</template>

<style scoped>
.choice {
  margin: 0 0 14px;
  padding: 0;
  border: 0;
}

legend,
.label {
  display: block;
  margin-bottom: 4px;
  padding: 0;
  font-weight: 600;
}

.words {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(128px, 1fr));
  gap: 8px;
}

.words.few {
  grid-template-columns: minmax(0, 1fr);
}

.words button {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
  min-height: 48px;
  padding: 6px 12px;
  border: 1px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--sheet);
  text-align: start;
  cursor: pointer;
}

.words button[aria-pressed='true'] {
  border-color: var(--act);
  background: var(--tint);
  box-shadow: inset 0 0 0 2px var(--act);
}

.words b {
  font-weight: 600;
}

.words .small {
  text-align: end;
  color: var(--ink-2);
}

.poured {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
  margin-bottom: 14px;
}
</style>
