<script setup lang="ts">
import { computed, ref } from 'vue'
import { useSite } from '@/farm/useFarm'
import { useLogWords } from './useLogWords'
import ProbeDialog from './ProbeDialog.vue'
import ProbeList from './ProbeList.vue'
import StandInDialog from './StandInDialog.vue'
import { type StandsIn, useProbes } from './useProbes'

/** The probes of a heap and of its place, a logger's file, and stand-ins to try it with. */
const { id } = defineProps<{ id: string }>()
const { t } = useLogWords()
const { site } = useSite()
const ofHeap = (): StandsIn => ({ kind: 'heap', id })
const ofSite = (): StandsIn => ({ kind: 'site', id: site.value?.id ?? '' })
const heap = useProbes(ofHeap)
const place = useProbes(ofSite)

/** Which of the two a probe is added to. */
const adding = ref<StandsIn | null>(null)
/** What a stand-in is played for, asked for at any speed. */
const playing = ref<StandsIn>(ofHeap())
const isPlaying = ref(false)
function play(of: StandsIn) {
  playing.value = of
  isPlaying.value = true
}
/** Asked for only when it is known that there is none: nothing that can be tapped goes away by itself. */
const hasNoStation = computed(() => place.probes.value?.every(({ is_ended }) => is_ended) ?? false)
</script>

<template>
  <section :aria-label="t('probe.title')">
    <h2 class="ruled">{{ t('probe.title') }}</h2>
    <ProbeList
      v-if="heap.probes.value?.length"
      :probes="heap.probes.value"
      @end="heap.end"
      @out="heap.takeOut"
    />
    <p v-else-if="heap.probes.value" class="quiet">{{ t('probe.none') }}</p>
    <p class="ways">
      <RouterLink :to="`/heaps/${id}/import`" data-deed="work">{{ t('import.open') }}</RouterLink>
      <button type="button" class="word-act" data-deed="keep" @click="adding = ofHeap()">
        {{ t('probe.add') }}
      </button>
      <button type="button" class="word-act" data-deed="keep" @click="play(ofHeap())">
        {{ t('probe.play') }}
      </button>
    </p>
    <details>
      <summary>{{ t('probe.weather') }}</summary>
      <ProbeList
        v-if="place.probes.value?.length"
        :probes="place.probes.value"
        @end="place.end"
        @out="place.takeOut"
      />
      <p v-else-if="place.probes.value" class="quiet">{{ t('probe.noWeather') }}</p>
      <p class="ways">
        <button type="button" class="word-act" data-deed="keep" @click="adding = ofSite()">
          {{ t('probe.addWeather') }}
        </button>
        <button v-if="hasNoStation" type="button" class="word-act" data-deed="keep" @click="play(ofSite())">
          {{ t('probe.playWeather') }}
        </button>
      </p>
    </details>
    <ProbeDialog v-model:of="adding" />
    <StandInDialog v-model:open="isPlaying" :of="playing" />
  </section>
</template>

<style scoped>
.ways {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
}

.ways a {
  display: flex;
  align-items: center;
  min-height: 44px;
  padding: 0 2px;
}

summary {
  min-height: 44px;
  padding: 10px 0;
  font-weight: 600;
  cursor: pointer;
}
</style>
