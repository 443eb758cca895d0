<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answered, api, type BatchListed } from '@/api/client'
import { key } from '@/api/keys'
import CardSheet from './CardSheet.vue'
import StateNote from '@/kit/StateNote.vue'
import type { Paper } from './paper'
import { questionOf } from '@/mix/recipe'
import { useStock } from '@/stock/useStock'

/** The card of a saved batch, summed by itself. */
const { batch, paper } = defineProps<{ batch: BatchListed; paper: Paper }>()
const { lots } = useStock()
const body = computed(() => questionOf(batch, lots.value ?? []))
const {
  data: answer,
  error,
  refetch: retry,
} = useQuery({
  queryKey: key('bench', body),
  queryFn: ({ signal }) => answered(api.POST('/api/bench', { body: body.value, signal })),
  enabled: computed(() => lots.value !== undefined),
  staleTime: Infinity,
})
</script>

<template>
  <StateNote v-if="!answer" :error="error" @retry="retry" />
  <CardSheet v-else :batch="batch" :answer="answer" :paper="paper" />
</template>
