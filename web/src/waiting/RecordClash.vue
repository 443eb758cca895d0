<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Unit } from '@/api/client'
import type { Act, Fields } from '@/api/outbox/act'
import { rowOf } from '@/api/outbox/kinds'
import { useOutbox } from '@/api/outbox/useOutbox'
import { useSay } from '@/words/useSay'
import ClashChoice from './ClashChoice.vue'

/** A record that was changed here and elsewhere, in the fields that both changed. */
const { act } = defineProps<{ act: Act }>()
defineEmits<{ theirs: [] }>()
const outbox = useOutbox()
const say = useSay()
const { t, te } = useI18n()

const fields = computed(() => act.trouble?.fields ?? [])
const mine = computed(() => said(act.body?.[rowOf(act.kind).now?.field ?? ''] as Fields))
const theirs = computed(() => said(act.trouble?.now ?? {}))

const said = (record: Fields) =>
  fields.value
    .map((name) => `${te(`waits.field.${name}`) ? t(`waits.field.${name}`) : name}: ${valueOf(name, record)}`)
    .join('; ')

function valueOf(name: string, record: Fields): string {
  const value = record[name]
  if (value === null || value === undefined || value === '') return t('waits.none')
  if (name === 'amount') return say.amount(Number(value), record.unit as Unit, record.measure_id as string)
  if (name === 'material') return say.nameOf(String(value), null)
  if (/_on$/.test(name)) return say.day(String(value))
  if (typeof value === 'number') return say.exact(value)
  return typeof value === 'object' ? listed(value) : String(value as string | boolean)
}

/** Figures and readings, each under its own name. */
const listed = (of: object): string =>
  Object.entries(of)
    .filter(([, value]) => value != null)
    .map(([name, value]) => {
      const word = te(`waits.field.${name}`) ? t(`waits.field.${name}`) : name.replaceAll('_', ' ')
      return `${word} ${typeof value === 'number' ? say.exact(value) : typeof value === 'object' ? listed(value as object) : String(value)}`
    })
    .join(', ')

/** Said again in full knowledge of what stands there: only what was changed here is put in its place. */
const again = () => outbox.again(act, { base: act.trouble?.now })
</script>

<template>
  <ClashChoice :mine="mine" :theirs="theirs" @mine="again" @theirs="$emit('theirs')" />
</template>
