<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed } from 'vue'
import { type Heap, Refused } from '@/api/client'
import { useAttempt } from '@/kit/useAttempt'
import { useHeaps } from './useHeaps'
import { useSay } from '@/words/useSay'
import { told } from '@/kit/refusals'
import { useSlip } from '@/kit/useSlip'

/** Takes what truly went in from stock, or gives it back. */
const { heap } = defineProps<{ heap: Heap }>()

const say = useSay()
const { t } = say
const slip = useSlip()
const { attempt } = useAttempt()
const { take, giveBack } = useHeaps()

const hasLots = computed(() => heap.items.some((part) => part.lot_id != null))

/** Where a lot holds too little, asks whether what is there will do. */
async function fetch() {
  try {
    await take.mutateAsync({ heap, what_is_there: false })
    slip.said({ text: t('build.taken') })
  } catch (failure) {
    const short = failure instanceof Refused ? (failure.problem.errors ?? []) : []
    const names = short
      .map(({ field }) => heap.items[Number(/\d+/.exec(field)?.[0])])
      .filter((part) => part !== undefined)
      .map((part) => say.nameWithin(part.material, part.label))
    if (!names.length) return slip.failed(told(failure, { noServer: t('app.noServer') }))
    slip.said({
      text: t('batches.short', { names: names.join(', ') }),
      undoLabel: t('batches.takeWhatIsThere'),
      undo: () => void attempt(() => take.mutateAsync({ heap, what_is_there: true })),
    })
  }
}

const putBack = () => attempt(() => giveBack.mutateAsync(heap))
</script>

<template>
  <p v-if="heap.taken_at" class="stock">
    {{ t('build.isTaken', { when: say.day(heap.taken_at) }) }}
    <button type="button" class="word-act" :disabled="giveBack.isPending.value" @click="putBack">
      {{ t('batches.giveBack') }}
    </button>
  </p>
  <ActButton v-else-if="hasLots" :label="t('build.take')" :loading="take.isPending.value" @click="fetch" />
</template>

<style scoped>
.stock {
  display: flex;
  gap: 16px;
  align-items: center;
}
</style>
