<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { ref, useTemplateRef, watch } from 'vue'
import { useFormatLocale } from '@/composables/useFormatLocale'
import { readNumber, writeNumber } from '@/figures/number'

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
} = defineProps<{
  min?: number
  max: number
  digits?: number
  step?: number
  /** Whether it may be left empty. */
  empty?: boolean
}>()
const value = defineModel<number | null>({ required: true })

const locale = useFormatLocale()
const text = ref(writeNumber(value.value, digits, locale.value))
const isBad = ref(false)
const input = useTemplateRef<{ $el: HTMLInputElement }>('input')

watch(value, (now) => {
  if (readNumber(text.value) !== now) text.value = writeNumber(now, digits, locale.value)
  isBad.value = false
})

function typed(now: string | undefined) {
  text.value = now ?? ''
  const number = readNumber(text.value)
  const isEmpty = text.value.trim() === ''
  isBad.value = number === null ? !(isEmpty && empty) : number < min || number > max
  if (!isBad.value) value.value = number
}

function leave() {
  text.value = writeNumber(value.value, digits, locale.value)
  isBad.value = false
}

function onKey(event: KeyboardEvent) {
  const way = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0
  if (!way) return
  event.preventDefault()
  const next = Math.round(((value.value ?? 0) + way * step) * 1000) / 1000
  value.value = Math.min(max, Math.max(min, next))
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
    :inputmode="digits > 0 ? 'decimal' : 'numeric'"
    :aria-valuemin="min"
    :aria-valuemax="max"
    :aria-valuenow="value ?? undefined"
    :invalid="isBad"
    @update:model-value="typed"
    @keydown="onKey"
    @blur="leave"
    @focus="(event: FocusEvent) => (event.target as HTMLInputElement).select()"
  />
</template>
