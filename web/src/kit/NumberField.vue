<script setup lang="ts">
import TextInput from '@/kit/TextInput.vue'
import { computed, ref, useId, useTemplateRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useFormatLocale } from '@/words/useFormatLocale'
import { useUnits } from '@/words/useUnits'
import { readNumber, writeNumber } from './number'
import type { Quantity } from '@/words/units'

/**
 * A number typed with a comma or a point, stepped with the arrow keys. What is typed counts at
 * every stroke. What is no number, or out of range, does not count: the value is the one that
 * was there before, what was typed stays, and once the field is left it is said what is wrong.
 * Escape brings the value back.
 */
defineOptions({ inheritAttrs: false })
const {
  min = 0,
  max,
  digits = 2,
  step = 1,
  empty = false,
  quantity,
} = defineProps<{
  min?: number
  max: number
  digits?: number
  step?: number
  /** Whether it may be left empty. */
  empty?: boolean
  /** What it is of; then it is typed in the person's units, and limits and value are the kept ones. */
  quantity?: Quantity
}>()
const value = defineModel<number | null>({ required: true })

const { t } = useI18n()
const locale = useFormatLocale()
const units = useUnits()
const places = computed(() => (quantity ? Math.max(digits, units.digits(quantity)) : digits))
const toShown = (kept: number) => (quantity ? units.shown(kept, quantity) : kept)
const toKept = (shown: number) => (quantity ? units.kept(shown, quantity) : shown)

/** An edge that is not known is not told. */
const shownEdge = (edge: number) => (Number.isFinite(edge) ? toShown(edge) : undefined)

const write = (kept: number | null) =>
  writeNumber(kept === null ? null : toShown(kept), places.value, locale.value)
const text = ref(write(value.value))
const isBad = ref(false)
/** Whether it was left with what cannot be read; until then it may still become something. */
const isTold = ref(false)
/** The value when typing began; half of a number that is none in the end must not stay. */
let before = value.value
/** What this field has given itself. */
let own = value.value
const input = useTemplateRef<{ focus: () => void }>('input')

watch([value, () => units.system.value], ([now, system], [, was]) => {
  if (now === own && system === was) return
  // Set from outside, or said in other units.
  own = now
  before = now
  text.value = write(now)
  isBad.value = false
})

function give(kept: number | null) {
  own = kept
  value.value = kept
}

function typed(now: string | null | undefined) {
  text.value = now ?? ''
  const number = readNumber(text.value, locale.value)
  const kept = number === null ? null : toKept(number)
  const isEmpty = text.value.trim() === ''
  isBad.value = kept === null ? !(isEmpty && empty) : kept < min - 1e-9 || kept > max + 1e-9
  if (!isBad.value) isTold.value = false
  give(isBad.value ? before : kept)
}

function enter(event: FocusEvent) {
  if (!isBad.value) before = own
  ;(event.target as HTMLInputElement).select()
}

function leave() {
  // Nothing typed where something must stand is no wish to keep it so.
  if (!isBad.value || text.value.trim() === '') restore()
  else isTold.value = true
}

function restore() {
  // What was given: the model follows only once its owner has it.
  text.value = write(own)
  isBad.value = false
  isTold.value = false
}

/** What is wrong, once the field was left. */
const fault = computed(() => {
  if (!isBad.value || !isTold.value) return ''
  const number = readNumber(text.value, locale.value)
  if (number === null) return t('app.notNumber', { one: write(toKept(2.5)), other: '2 1/2' })
  const isOver = toKept(number) > max
  return t(isOver ? 'app.atMost' : 'app.atLeast', { edge: write(isOver ? max : min) })
})
const faultId = useId()

function onKey(event: KeyboardEvent) {
  if (event.key === 'Escape' && isBad.value) {
    event.stopPropagation()
    restore()
    return
  }
  const way = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0
  if (!way) return
  event.preventDefault()
  const next = Math.round((toShown(own ?? 0) + way * step) * 1000) / 1000
  const kept = Math.min(max, Math.max(min, toKept(next)))
  give(kept)
  restore()
}

defineExpose({ focus: () => input.value?.focus() })
</script>

<template>
  <TextInput
    ref="input"
    v-bind="$attrs"
    :model-value="text"
    type="text"
    role="spinbutton"
    autocomplete="off"
    :inputmode="places > 0 ? 'decimal' : 'numeric'"
    :aria-valuemin="shownEdge(min)"
    :aria-valuemax="shownEdge(max)"
    :aria-valuenow="value === null ? undefined : toShown(value)"
    :invalid="isBad"
    :aria-invalid="isBad || undefined"
    :aria-describedby="fault ? faultId : ($attrs['aria-describedby'] as string | undefined)"
    @update:model-value="typed"
    @keydown="onKey"
    @blur="leave"
    @focus="enter"
  />
  <p v-if="fault" :id="faultId" class="fault small number-fault" role="alert">{{ fault }}</p>
</template>
