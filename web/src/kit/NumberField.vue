<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useFormatLocale } from '@/words/useFormatLocale'
import { useUnits } from '@/words/useUnits'
import { readNumber, writeNumber } from './number'
import type { Quantity } from '@/words/units'

/**
 * A number typed with a comma or a point, stepped with the arrow keys. What is
 * typed counts at every stroke; what is no number, or out of range, does not
 * count and goes back to the last good one when the field is left.
 */
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
const input = useTemplateRef<{ $el: HTMLInputElement }>('input')

watch([value, () => units.system.value], ([now, system], [, before]) => {
  const typed = readNumber(text.value)
  const isSame =
    typed !== null && now !== null && Math.abs(toKept(typed) - now) < 1e-9 * Math.max(1, Math.abs(now))
  if (!isSame || system !== before) text.value = write(now)
  isBad.value = false
})

function typed(now: string | undefined) {
  text.value = now ?? ''
  const number = readNumber(text.value)
  const kept = number === null ? null : toKept(number)
  const isEmpty = text.value.trim() === ''
  isBad.value = kept === null ? !(isEmpty && empty) : kept < min - 1e-9 || kept > max + 1e-9
  if (!isBad.value) value.value = kept
}

function leave() {
  text.value = write(value.value)
  isBad.value = false
}

function onKey(event: KeyboardEvent) {
  const way = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0
  if (!way) return
  event.preventDefault()
  const next = Math.round((toShown(value.value ?? 0) + way * step) * 1000) / 1000
  value.value = Math.min(max, Math.max(min, toKept(next)))
}

defineExpose({ focus: () => input.value?.$el.focus() })
</script>

<template>
  <InputText
    ref="input"
    :model-value="text"
    type="text"
    role="spinbutton"
    autocomplete="off"
    :inputmode="places > 0 ? 'decimal' : 'numeric'"
    :aria-valuemin="shownEdge(min)"
    :aria-valuemax="shownEdge(max)"
    :aria-valuenow="value === null ? undefined : toShown(value)"
    :invalid="isBad"
    @update:model-value="typed"
    @keydown="onKey"
    @blur="leave"
    @focus="(event: FocusEvent) => (event.target as HTMLInputElement).select()"
  />
</template>
