<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, ref } from 'vue'
import CardSheet from './CardSheet.vue'
import PaperSelect from './PaperSelect.vue'
import StateNote from '@/kit/StateNote.vue'
import type { Paper } from './paper'
import { useBench } from '@/mix/useBench'
import { useDraft } from '@/mix/draft'
import { useSay } from '@/words/useSay'

/** The card of what lies on the bench, to print. */
const { t } = useSay()
const store = useDraft()
const { answer, error, retry } = useBench()

const paper = ref<Paper>('a4')
const hasPlan = computed(() => answer.value?.layers != null)
const batch = computed(() => store.asBatch(store.draft.saved?.name ?? ''))
const print = () => window.print()
</script>

<template>
  <header class="page-head">
    <div aria-live="polite">
      <h1>{{ hasPlan ? t('card.title') : t('layers.empty') }}</h1>
      <p>
        {{ t('card.lead') }} <RouterLink to="/plots">{{ t('plots.open') }}</RouterLink>
      </p>
    </div>
    <div class="acts">
      <ActButton
        :to="hasPlan ? '/layers' : '/bench'"
        variant="outlined"
        :label="t(hasPlan ? 'prepare.toLayers' : 'layers.toBench')"
      />
      <ActButton v-if="hasPlan" :label="t('layers.print')" @click="print" />
    </div>
  </header>
  <StateNote v-if="!answer" :error="error" @retry="retry" />
  <template v-else-if="hasPlan">
    <PaperSelect v-model="paper" />
    <CardSheet :batch="batch" :answer="answer" :paper="paper" />
  </template>
</template>

<style scoped>
@media print {
  .page-head {
    display: none;
  }
}
</style>
