<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api } from '@/api/client'
import { key } from '@/api/keys'
import type { Act } from '@/api/outbox/act'
import { useOutbox } from '@/api/outbox/useOutbox'
import { useBuildWords } from '@/build/useBuildWords'
import ClashChoice from './ClashChoice.vue'

/** What was done to a heap here, beside what somebody else did to it meanwhile. */
const { act } = defineProps<{ act: Act }>()
defineEmits<{ theirs: [] }>()
const outbox = useOutbox()

const { data: heap } = useQuery({
  queryKey: key('heap', () => act.of),
  queryFn: ({ signal }) => answered(api.GET('/api/heaps/{id}', { params: { path: { id: act.of } }, signal })),
  staleTime: 0,
})
const { say, t, inWords } = useBuildWords(heap)

/** Who did what stands there, and what it is: the same step, or else what was done last. */
const done = computed(() => {
  const step = act.body?.step as number | undefined
  return heap.value?.done.find((one) => step === undefined || one.step === step)
})
const theirs = computed(() => {
  if (!heap.value || !done.value) return t('app.loading')
  const { kind, step } = done.value
  const laid = kind === 'laid' && step != null ? heap.value.build.steps[step] : undefined
  const what = laid
    ? t('build.layerIs', { n: step! + 1, what: inWords(laid) })
    : t(`done.${kind}`, { step: (step ?? 0) + 1 })
  return `${heap.value.name}, ${what}`
})
const by = computed(() =>
  done.value ? [done.value.by, done.value.device, say.time(done.value.at)].filter(Boolean).join(', ') : '',
)

/** Said again in full knowledge of what stands there. */
const mine = () => heap.value && outbox.again(act, { body: { ...act.body, after: heap.value.head } })
</script>

<template>
  <ClashChoice :mine="act.says" :theirs="theirs" :by="by" @mine="mine" @theirs="$emit('theirs')" />
</template>
