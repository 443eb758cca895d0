<script setup lang="ts">
import { computed, ref } from 'vue'
import type { GroundTold } from '@/api/client'
import ActButton from '@/kit/ActButton.vue'
import LatelyList from '@/kit/LatelyList.vue'
import StateNote from '@/kit/StateNote.vue'
import { useSay } from '@/words/useSay'
import BesideEachOther from './BesideEachOther.vue'
import GroundCard from './GroundCard.vue'
import GroundDialog from './GroundDialog.vue'
import LabDialog from './LabDialog.vue'
import type { Held } from './figures'
import { useFinish, useGrounds } from './useFinish'

/** Beds, fields, trees: what each got, what is to be kept to there, what its soil holds. */
const say = useSay()
const { t } = say
const { grounds, error, retry } = useGrounds()
const { foundInSoil } = useFinish()
const isOpen = ref(false)
const changing = ref<GroundTold | null>(null)
const sample = ref<GroundTold | null>(null)
function write(ground: GroundTold | null) {
  changing.value = ground
  isOpen.value = true
}
const waiting = computed(() => (grounds.value ?? []).filter(({ no_harvest_until }) => no_harvest_until))
const headline = computed(() => {
  if (!grounds.value) return t('nav.grounds')
  if (!grounds.value.length) return t('ground.none')
  const n = waiting.value.length
  return n
    ? t('ground.waiting', { n }, n)
    : t('ground.some', { n: grounds.value.length }, grounds.value.length)
})
/** Soil before and after, with what went on it. */
const all = computed<Held[]>(() =>
  (grounds.value ?? []).flatMap((of) =>
    of.results.map((one) => ({
      key: one.id,
      name: t('lab.foundIn', { name: of.name, day: say.day(one.made_on) }),
      kind: 'soil' as const,
      figures: one.dry,
    })),
  ),
)
</script>

<template>
  <header class="page-head">
    <div>
      <h1>{{ headline }}</h1>
      <p>{{ t('ground.hint') }}</p>
    </div>
    <div class="acts" data-deed="work">
      <ActButton :label="t('ground.new')" @click="write(null)" />
    </div>
  </header>
  <StateNote v-if="!grounds" :error="error" @retry="retry" />
  <template v-else>
    <GroundCard v-for="one in grounds" :key="one.id" :of="one" @change="write(one)" @soil="sample = one" />
    <section v-if="all.length" :aria-label="t('lab.beside')">
      <h2 class="ruled">{{ t('lab.soilBeside') }}</h2>
      <BesideEachOther :all="all" />
    </section>
    <LatelyList :of="['grounds']" />
  </template>
  <GroundDialog v-model:open="isOpen" :ground="changing" />
  <LabDialog :of="sample" :send="foundInSoil" @close="sample = null" />
</template>

<style scoped>
section {
  margin-top: 26px;
}
</style>
