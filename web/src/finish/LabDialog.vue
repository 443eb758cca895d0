<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import type { LabFigure, LabRequest } from '@/api/client'
import FormDialog from '@/kit/FormDialog.vue'
import FormField from '@/kit/FormField.vue'
import NumberField from '@/kit/NumberField.vue'
import TextInput from '@/kit/TextInput.vue'
import { useHalfTyped } from '@/kit/useHalfTyped'
import { useRefusals } from '@/kit/useRefusals'
import { useAbout } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import { FIGURES } from './figures'
import { useFigureWords } from './useFigureWords'

/** What a laboratory or a kit found, typed in from its sheet. */
const { of, send } = defineProps<{
  /** What the sample is of. */
  of: { id: string; name: string } | null
  send: (of: { id: string }, request: LabRequest) => Promise<unknown>
}>()
const emit = defineEmits<{ close: [] }>()

const { t } = useSay()
const { about } = useAbout()
const { nameOf } = useFigureWords()
const values = reactive(
  Object.fromEntries(FIGURES.map(({ figure }) => [figure, null])) as Record<LabFigure, number | null>,
)
const form = reactive({ made_on: '', by: '', basis: 'dry' as 'dry' | 'received' })
const isPending = ref(false)

const typed = computed(() =>
  FIGURES.filter(({ figure }) => values[figure] != null).map(({ figure }) => ({
    figure,
    value: values[figure]!,
  })),
)
/** A figure of the request, by its place among those that were typed. */
const { faults, forget, tried } = useRefusals('measures.stale', (path) => {
  const place = /^figures\[(\d+)\]/.exec(path)?.[1]
  if (place) return typed.value[Number(place)]?.figure ?? null
  return ['made_on', 'by', 'basis'].includes(path) ? path : null
})
const open = computed({
  get: () => of !== null,
  set: (is) => {
    if (!is) emit('close')
  },
})
const { ended } = useHalfTyped(
  () => of !== null,
  () => of?.id ?? '',
  () => {
    forget()
    for (const { figure } of FIGURES) values[figure] = null
    Object.assign(form, { made_on: about.value?.today ?? '', by: '', basis: 'dry' })
  },
)

async function save() {
  if (!of || isPending.value) return
  isPending.value = true
  const done = await tried(() =>
    send(of, { made_on: form.made_on, by: form.by.trim() || null, basis: form.basis, figures: typed.value }),
  )
  isPending.value = false
  if (!done) return
  ended()
  emit('close')
}
</script>

<template>
  <FormDialog
    v-model:open="open"
    :header="t('lab.title', { name: of?.name ?? '' })"
    :does="t('lab.does')"
    :fault="faults.whole"
    :pending="isPending"
    :disabled="!typed.length"
    @save="save"
    @cancel="ended"
  >
    <div class="two">
      <FormField id="lab-day" field="made_on" :label="t('lab.madeOn')">
        <input id="lab-day" v-model="form.made_on" type="date" class="full" :max="about?.today" autofocus />
      </FormField>
      <FormField id="lab-by" field="by" :label="t('lab.by')">
        <TextInput id="lab-by" v-model="form.by" class="full" />
      </FormField>
    </div>
    <FormField id="lab-basis" field="basis" :label="t('lab.basis')" :hint="t('lab.basisHint')">
      <select id="lab-basis" v-model="form.basis" class="full">
        <option value="dry">{{ t('lab.dry') }}</option>
        <option value="received">{{ t('lab.received') }}</option>
      </select>
    </FormField>
    <div class="two">
      <FormField
        v-for="row in FIGURES"
        :id="`lab-${row.figure}`"
        :key="row.figure"
        :field="row.figure"
        :label="row.unit ? `${nameOf(row.figure)}, ${row.unit}` : nameOf(row.figure)"
      >
        <NumberField
          :id="`lab-${row.figure}`"
          v-model="values[row.figure]"
          class="full"
          :max="row.most"
          :digits="3"
          empty
        />
      </FormField>
    </div>
  </FormDialog>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(132px, 1fr));
  gap: 10px 14px;
}
</style>
