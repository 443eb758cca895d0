<script setup lang="ts">
import { computed, ref } from 'vue'
import type { CompostTold } from '@/api/client'
import ActButton from '@/kit/ActButton.vue'
import StateNote from '@/kit/StateNote.vue'
import { useSay } from '@/words/useSay'
import BesideEachOther from './BesideEachOther.vue'
import CompostAmountDialog from './CompostAmountDialog.vue'
import CompostCard from './CompostCard.vue'
import LabDialog from './LabDialog.vue'
import type { Held } from './figures'
import { useCompostList, useFinish } from './useFinish'

/** Compost that was taken out of heaps: how much is left, what it holds, where it went. */
const say = useSay()
const { t } = say
const { composts, error, retry } = useCompostList()
const { found } = useFinish()

const left = computed(() => (composts.value ?? []).reduce((sum, { litres }) => sum + litres, 0))
const headline = computed(() => {
  if (!composts.value) return t('nav.compost')
  if (!composts.value.length) return t('compost.none')
  return left.value < 1 ? t('compost.allUsed') : t('compost.there', { bulk: say.bulk(left.value) })
})
const sample = ref<CompostTold | null>(null)
const counted = ref<CompostTold | null>(null)

/** What was estimated and found of each, to stand beside each other. */
const all = computed<Held[]>(() =>
  (composts.value ?? []).flatMap((of) => [
    ...of.results.map((one) => ({
      key: one.id,
      name: t('lab.foundIn', { name: of.name, day: say.day(one.made_on) }),
      kind: 'compost' as const,
      figures: one.dry,
    })),
    {
      key: of.id,
      name: t('lab.estimatedOf', { name: of.name }),
      kind: 'estimated' as const,
      figures: of.estimated,
    },
  ]),
)
</script>

<template>
  <header class="page-head">
    <div>
      <h1>{{ headline }}</h1>
      <p>{{ t(composts?.length ? 'compost.hint' : 'compost.noneHint') }}</p>
    </div>
    <div class="acts">
      <ActButton v-if="composts && !composts.length" to="/heaps" :label="t('nav.heaps')" />
      <ActButton to="/grounds" :label="t('nav.grounds')" variant="outlined" />
      <ActButton to="/compare" :label="t('nav.compare')" variant="outlined" />
    </div>
  </header>
  <StateNote v-if="!composts" :error="error" @retry="retry" />
  <template v-else>
    <CompostCard v-for="one in composts" :key="one.id" :of="one" @lab="sample = one" @count="counted = one" />
    <section v-if="composts.length" :aria-label="t('lab.beside')">
      <h2 class="ruled">{{ t('lab.beside') }}</h2>
      <p class="quiet small">{{ t('lab.besideHint') }}</p>
      <BesideEachOther :all="all" />
    </section>
  </template>
  <LabDialog :of="sample" :send="found" @close="sample = null" />
  <CompostAmountDialog :of="counted" @close="counted = null" />
</template>

<style scoped>
section {
  margin-top: 26px;
}
</style>
