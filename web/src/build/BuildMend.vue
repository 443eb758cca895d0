<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, toRef } from 'vue'
import type { BuildAnew, Heap, MixSums } from '@/api/client'
import { useBuildWords } from './useBuildWords'
import { faultOf, isAsPlanned, isGrave } from './build'

/** Where the heap will end outside of its windows: what the rest would have to be, in one tap. */
const { heap, busy } = defineProps<{ heap: Heap; busy: boolean }>()
const emit = defineEmits<{ anew: [way: BuildAnew['way']] }>()

const { say, t, items, name } = useBuildWords(toRef(() => heap))

const fault = computed(() => faultOf(heap.build.at_end))
/** Whoever planned it so knew; it is told once, in passing. */
const isQuiet = computed(() => isAsPlanned(heap.build))
const isTold = computed(() => fault.value !== null && !(isQuiet.value && heap.build.laid > 0))
const title = computed(() => {
  const { at_end, laid, steps } = heap.build
  if (!fault.value || !at_end) return ''
  const is = t(isGrave(at_end) ? 'build.grave' : 'build.slight', {
    fault: t(`build.fault.${fault.value}`),
    figure: t(`build.faultFigure.${fault.value}`, figures(at_end)),
  })
  if (isQuiet.value) return t('build.offAsPlanned', { fault: is })
  return t(laid === steps.length ? 'build.isOff' : 'build.willBeOff', { fault: is })
})

const figures = (sums: MixSums) => ({
  ratio: say.whole(sums.c_n_counted),
  frame: say.whole(sums.structured_pct ?? 100),
  moisture: say.whole(sums.moisture_pct),
  air: say.whole(sums.free_air_space_pct),
})

/** What changes from here on, in the words of the person: "2 more buckets of scraps". */
function changesOf(anew: BuildAnew): string[] {
  const words: string[] = []
  items.value.forEach((part, index) => {
    const by = (anew.becomes[index] ?? 0) - (anew.was[index] ?? 0)
    if (Math.abs(by) < 0.02) return
    const amount = say.amount(Math.abs(by), part.unit, part.measure_id)
    words.push(t(by > 0 ? 'build.more' : 'build.less', { amount, name: name(index) }))
  })
  const water = anew.becomes_water_l - anew.was_water_l
  if (Math.abs(water) >= 2) {
    const amount = say.water(Math.abs(water))
    words.push(t(water > 0 ? 'build.more' : 'build.less', { amount, name: t('build.ofWater') }))
  }
  return words
}

/** The ways to go on, each with what it does to the mix, the height and the heat. */
const ways = computed(() =>
  heap.build.anew.map((anew) => ({
    way: anew.way,
    title: t(`build.way.${anew.way}`),
    inShort: t('build.wayInShort', {
      way: t(`build.way.${anew.way}`),
      height: say.length(anew.height_cm),
      size: t(`stand.size.${anew.size}`),
    }),
    changes: changesOf(anew),
    promise: t(anew.status === 'ok' ? 'build.thenRight' : 'build.thenNearer', figures(anew.at_end)),
    becomes: t('build.becomes', {
      was: say.length(heap.build.end_height_cm),
      height: say.length(anew.height_cm),
      size: t(`stand.size.${anew.size}`),
    }),
  })),
)
</script>

<template>
  <component
    :is="isQuiet ? 'details' : 'section'"
    v-if="isTold"
    class="mend"
    :class="{ quiet: isQuiet }"
    role="status"
  >
    <summary v-if="isQuiet">{{ title }}</summary>
    <h2 v-else>{{ title }}</h2>
    <template v-if="ways.length">
      <!-- Of several only the names stand open: the layer to be laid has to stay in sight. -->
      <component
        :is="ways.length > 1 ? 'details' : 'div'"
        v-for="one in ways"
        :key="one.way"
        class="way"
        name="build-way"
      >
        <summary v-if="ways.length > 1">{{ one.inShort }}</summary>
        <p>{{ t('build.fromHere') }}</p>
        <ul>
          <li v-for="line in one.changes" :key="line">{{ line }}</li>
        </ul>
        <p>{{ one.promise }} {{ one.becomes }}</p>
        <ActButton
          :label="t('build.putRight')"
          :aria-label="ways.length > 1 ? t('build.putRightNamed', { way: one.title }) : undefined"
          :disabled="busy"
          fluid
          @click="emit('anew', one.way)"
        />
      </component>
    </template>
    <p v-else>{{ t('build.noMend') }}</p>
  </component>
</template>

<style scoped>
.mend {
  padding: 12px 14px;
  border-inline-start: 4px solid var(--alarm);
  background: var(--paper-2);
}

.mend.quiet {
  padding: 0 14px;
  border-color: var(--line);
  color: var(--ink);
}

.mend.quiet[open] {
  padding-bottom: 12px;
}

summary {
  min-height: 44px;
  padding: 10px 0;
  line-height: 1.3;
  cursor: pointer;
}

h2 {
  font-size: 1.0625rem;
}

details.way {
  margin-top: 6px;
  border-top: 1px solid var(--line);
}

.way > summary {
  color: var(--act);
  font-weight: 640;
}

li {
  padding: 2px 0;
  font-weight: 640;
}

p {
  margin-top: 4px;
}

.act-button {
  margin-top: 10px;
}
</style>
