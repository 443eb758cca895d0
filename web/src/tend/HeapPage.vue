<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { LogTold } from '@/api/client'
import ActButton from '@/kit/ActButton.vue'
import StateNote from '@/kit/StateNote.vue'
import HarvestDialog from '@/finish/HarvestDialog.vue'
import { useMethods } from '@/farm/useFarm'
import HeapJudged from './HeapJudged.vue'
import HeapNow from './HeapNow.vue'
import HeapProbes from './HeapProbes.vue'
import HeatTrace from './HeatTrace.vue'
import LogList from './LogList.vue'
import TendBar from './TendBar.vue'
import TendDialog from './TendDialog.vue'
import { isTendKind, type TendKind } from './forms'
import { useTend, useTending } from './useTending'
import { useTrace } from './useTrace'

/** One heap, from plan to now. */
const { id } = defineProps<{ id: string }>()

const { heap, error, retry, log, pending } = useTending(toRef(() => id))
// Asked for at once, and not only when there is a place to draw it.
useTrace(toRef(() => id))
const { takeBack, words } = useTend()
const { say, t } = words
const { methodName } = useMethods()

const isTaking = ref(false)
const kind = ref<TendKind | null>(null)
const entry = ref<LogTold | null>(null)
function change(of: LogTold) {
  if (!isTendKind(of.kind)) return
  entry.value = of
  kind.value = of.kind
}
function close() {
  kind.value = null
  entry.value = null
}

/** How it stands against what is expected, in one line. */
const headline = computed(() => {
  const of = heap.value
  if (!of) return ''
  const { name, newest, now } = of
  if (!of.built_at) return t('heap.notBuilt', { name })
  if (!newest) return t('heap.notRead', { name })
  const temp = say.of(newest.temp_c, 'temperature')
  const [low, high] = now?.expected_core_c ?? []
  const isOld = Date.parse(of.log[0]?.at ?? newest.at) - Date.parse(newest.at) > 7 * 86_400_000
  if (low === undefined || high === undefined || isOld) return t('heap.is', { name, temp })
  if (newest.temp_c < low) return t('heap.colder', { name, temp })
  if (newest.temp_c > high) return t('heap.hotter', { name, temp })
  return t('heap.asExpected', { name, temp })
})
const under = computed(() => {
  const of = heap.value
  if (!of) return ''
  const age = of.age_days == null ? '' : t('heap.age', { day: Math.floor(of.age_days) })
  const read = of.newest ? t('heap.readAt', { when: say.time(of.newest.at) }) : ''
  return [age, of.method ? methodName(of.method) : '', read].filter(Boolean).join(', ')
})
const cautions = computed(() =>
  (heap.value?.newest?.temp_c ?? 0) >= 75
    ? [t('heap.caution.fire'), t('heap.caution.burns')]
    : [t('heap.caution.always')],
)
</script>

<template>
  <p class="crumb">
    <RouterLink to="/heaps">{{ t('nav.heaps') }}</RouterLink>
  </p>
  <StateNote v-if="!heap" :error="error" @retry="retry" />
  <article v-else>
    <header class="page-head">
      <div>
        <h1>{{ headline }}</h1>
        <p>{{ under }}</p>
      </div>
    </header>
    <div class="columns">
      <div class="main">
        <TendBar v-if="!heap.emptied_at" @pick="(one) => (kind = one)" />
        <HeatTrace :id="id" />
        <HeapJudged v-if="heap.built_at" :id="id" />
        <section :aria-label="t('heap.log')">
          <h2 class="ruled">
            {{ t('heap.log') }}
            <a class="small" :href="`/api/heaps/${id}/log.csv`" download>{{ t('heap.export') }}</a>
          </h2>
          <LogList
            :heap="id"
            :log="log"
            :pending="pending"
            @change="change"
            @back="(one) => takeBack(heap!, one.id, words.told(one))"
          />
        </section>
      </div>
      <div class="side">
        <section v-if="heap.now && !heap.emptied_at" :aria-label="t('heap.now.title')">
          <h2 class="ruled">
            {{ t('heap.now.title') }} <span class="quiet small">{{ t('heap.now.how') }}</span>
          </h2>
          <HeapNow :now="heap.now" />
        </section>
        <section v-if="heap.built_at" :aria-label="t('harvest.section')">
          <h2 class="ruled">{{ t('harvest.section') }}</h2>
          <p v-if="heap.emptied_at">
            {{ t('harvest.emptied', { day: say.day(heap.emptied_at.slice(0, 10)) }) }}
          </p>
          <ActButton
            v-else
            data-deed="work"
            variant="outlined"
            :label="t('harvest.does')"
            @click="isTaking = true"
          />
          <p>
            <RouterLink to="/compost" class="row-link">{{ t('harvest.there') }}</RouterLink>
          </p>
          <p>
            <RouterLink :to="`/use?heap=${id}`" class="row-link">{{ t('apply.title') }}</RouterLink>
          </p>
        </section>
        <HeapProbes :id="id" />
        <section :aria-label="t('heap.before')">
          <h2 class="ruled">{{ t('heap.before') }}</h2>
          <p>
            <RouterLink :to="`/build/${id}`" class="row-link">{{ t('heap.asBuilt') }}</RouterLink>
          </p>
          <p v-if="heap.batch_id">
            <RouterLink to="/batches" class="row-link">{{ t('heap.recipe') }}</RouterLink>
          </p>
        </section>
        <section :aria-label="t('heap.caution.title')">
          <h2 class="ruled">{{ t('heap.caution.title') }}</h2>
          <p v-for="one in cautions" :key="one" class="small">{{ one }}</p>
        </section>
      </div>
    </div>
    <HarvestDialog v-if="heap.built_at" v-model:open="isTaking" :heap="heap" />
    <TendDialog :heap="heap" :kind="kind" :entry="entry" @close="close" />
  </article>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: 20px 36px;
  margin-top: 16px;
}

.main,
.side {
  display: grid;
  gap: 22px;
  align-content: start;
  min-width: 0;
}

.row-link {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}

@media (max-width: 1023px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
