<script setup lang="ts">
import { toRef } from 'vue'
import StateNote from '@/kit/StateNote.vue'
import HeapTasks from './HeapTasks.vue'
import HotEnough from './HotEnough.vue'
import IsItReady from './IsItReady.vue'
import WhatIsWrong from './WhatIsWrong.vue'
import { useJudgement } from './useJudgement'

/** What is judged of a heap: what to do, what is wrong, was it hot enough, is it ready. */
const { id } = defineProps<{ id: string }>()
const { judgement, error, retry } = useJudgement(toRef(() => id))
</script>

<template>
  <StateNote v-if="!judgement" :error="error" @retry="retry" />
  <template v-else>
    <HeapTasks :id="id" :tasks="judgement.tasks" />
    <WhatIsWrong :causes="judgement.causes" :is-well="judgement.nothing_wrong" />
    <HotEnough :judgement="judgement" />
    <IsItReady :readiness="judgement.readiness" />
  </template>
</template>
