<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, nextTick, ref, toRef, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import BuildAmend from './BuildAmend.vue'
import BuildFigures from './BuildFigures.vue'
import BuildDone from './BuildDone.vue'
import BuildLaid from './BuildLaid.vue'
import BuildMend from './BuildMend.vue'
import BuildNow from './BuildNow.vue'
import BuildSection from './BuildSection.vue'
import BuildStock from './BuildStock.vue'
import StateNote from '@/kit/StateNote.vue'
import { useAttempt } from '@/kit/useAttempt'
import { useAwake } from './useAwake'
import { useBuild } from './useBuild'
import { useMethods } from '@/farm/useFarm'
import { useHeaps } from './useHeaps'
import { useWidth } from '@/kit/useWidth'
import { dayAfter } from '@/plan/agenda'
import { drawable, isUnreckoned } from './build'

/** Build day: one layer at a time, with wet hands. */
const { id } = defineProps<{ id: string }>()

const router = useRouter()
const { heap, words, error, retry, lay, anew, end, undo, isBusy, isCutOff } = useBuild(toRef(() => id))
const { say, t, hatches } = words
const { methods } = useMethods()
const { remove } = useHeaps()
const { undoable } = useAttempt()
useAwake()

const box = useTemplateRef<HTMLElement>('box')
const width = useWidth(box, 328)

const build = computed(() => heap.value?.build)
const isBuilt = computed(() => build.value !== undefined && build.value.laid === build.value.steps.length)
const plan = computed(() => build.value && drawable(build.value))
const place = computed(() => {
  if (!build.value) return ''
  const { laid, steps } = build.value
  const isLoad = (steps[laid]?.portions.length ?? 0) > 1
  return t(isLoad ? 'build.loadOf' : 'build.layerOf', { n: laid + 1, of: steps.length })
})

const headline = computed(() => {
  if (!build.value) return ''
  if (!isBuilt.value) return t('build.title', { name: heap.value?.name ?? '', place: place.value })
  const { height_cm, so_far } = build.value
  return so_far
    ? t('build.built', { height: say.length(height_cm), mass: say.kg(so_far.wet_mass_kg) })
    : t('build.builtHere')
})

const amended = ref<number | null>(null)

function done() {
  const step = build.value?.steps[build.value.laid]
  if (step) void lay(build.value!.laid, step.portions, step.water_l)
}

function putRight(...went: Parameters<typeof lay>) {
  amended.value = null
  void lay(...went)
}

// When the last layer is on, what comes of it is read out.
const head = useTemplateRef<HTMLElement>('head')
watch(isBuilt, async (now, before) => {
  if (!now || before) return
  await nextTick()
  head.value?.focus()
})

const method = computed(() => methods.value?.find((one) => one.id === heap.value?.method))
/** What the heap came to, and what comes next, with its day. */
const comesNext = computed(() => {
  const of = heap.value
  if (!of || !build.value) return []
  const day = (of.built_at ?? of.changed_at).slice(0, 10)
  const on = (days: number) => say.day(dayAfter(day, days))
  const sums = of.build.so_far
  const sized = sums
    ? t('build.sized', { volume: say.heap(sums.heap_volume_l), size: t(`stand.size.${of.build.size}`) })
    : ''
  const look = method.value?.check_days
  const [every = 0] = method.value?.turn_every_days ?? []
  const turn = method.value?.first_turn_day
  return [
    sized,
    look
      ? t('build.firstLookOn', { day: on(Math.max(1, look[0] ?? 1)) })
      : t('build.firstLookOn', { day: on(3) }),
    turn != null && every > 0 ? t('build.firstTurnOn', { day: on(turn), age: say.whole(turn) }) : '',
    method.value ? t('card.watering', { when: t(`methods.watering.${method.value.water}`) }) : '',
  ].filter(Boolean)
})

async function discard() {
  if (!heap.value) return
  const { id: gone, name } = heap.value
  await undoable(
    t('build.discarded', { name }),
    async () => {
      await remove.mutateAsync({ id: gone, name })
      await router.push('/batches')
    },
    { what: 'heaps', id: gone },
    t('build.back', { name }),
  )
}
</script>

<template>
  <StateNote v-if="!heap || !build || !plan" :error="error" @retry="retry" />
  <article v-else class="build">
    <header class="top">
      <RouterLink to="/batches" class="name">{{ heap.name }}</RouterLink>
      <span v-if="!isBuilt" class="place">{{ place }}</span>
    </header>
    <h1 ref="head" tabindex="-1" :class="{ 'only-read': !isBuilt }">
      {{ headline }}
    </h1>
    <div class="left">
      <BuildNow v-if="!isBuilt" :heap="heap" />
      <template v-else>
        <ul class="after">
          <li v-for="line in comesNext" :key="line">{{ line }}</li>
          <li>{{ t('build.afterwards') }}</li>
        </ul>
        <BuildStock :heap="heap" />
      </template>
      <BuildMend :heap="heap" :busy="isBusy" @anew="anew" />
      <p v-if="isCutOff" class="waiting" role="status">
        {{ t('build.waiting') }}
        <template v-if="isUnreckoned(build)">{{ t('build.waitingSums') }}</template>
      </p>
      <footer class="thumb" data-deed="work">
        <ActButton
          v-if="!isBuilt"
          class="done"
          fluid
          :label="t('build.done')"
          :aria-disabled="isBusy"
          @click="done"
        />
        <div class="small-acts">
          <button
            v-if="!isBuilt"
            type="button"
            class="word-act"
            :disabled="isBusy"
            @click="amended = build.laid"
          >
            {{ t('build.else') }}
          </button>
          <button v-if="heap.can_undo" type="button" class="word-act" :disabled="isBusy" @click="undo">
            {{ t('build.undo') }}
          </button>
        </div>
      </footer>
    </div>
    <div class="right">
      <BuildFigures :build="build" />
      <div ref="box" class="drawn">
        <BuildSection
          :plan="plan"
          :heap="heap.heap"
          :hatches="hatches"
          :laid="build.laid"
          :is-unreckoned="isUnreckoned(build)"
          :width="width"
          :height="width < 420 ? 230 : 360"
        />
      </div>
      <details class="all" :open="isBuilt">
        <summary>{{ t('build.all', { laid: build.laid, of: build.steps.length }) }}</summary>
        <BuildLaid :heap="heap" :busy="isBusy" @change="(step) => (amended = step)" />
        <div class="small-acts" data-deed="work">
          <button
            v-if="!isBuilt && build.laid > 0"
            type="button"
            class="word-act"
            :disabled="isBusy"
            @click="end"
          >
            {{ t('build.end') }}
          </button>
          <button type="button" class="word-act" :disabled="isBusy" @click="discard">
            {{ t('build.discard') }}
          </button>
        </div>
      </details>
      <details v-if="heap.done.length" class="all">
        <summary>{{ t('build.log') }}</summary>
        <BuildDone :done="heap.done" />
      </details>
    </div>
    <BuildAmend :heap="heap" :step="amended" @close="amended = null" @laid="putRight" />
  </article>
</template>

<style scoped>
.build {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 6px 40px;
  max-width: 1040px;
}

.top {
  grid-column: 1 / -1;
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 16px;
}

.name {
  min-height: 44px;
  display: flex;
  align-items: center;
  text-decoration: none;
}

.name::before {
  content: '‹';
  margin-inline-end: 8px;
  font-size: 1.375rem;
}

.place {
  white-space: nowrap;
  color: var(--ink-2);
}

h1 {
  grid-column: 1 / -1;
}

h1:focus {
  outline: none;
}

.left,
.right {
  display: grid;
  gap: 14px;
  align-content: start;
  min-width: 0;
}

/* What went wrong stands above what comes next. */
.left {
  display: flex;
  flex-direction: column;
}

.left > :deep(.mend:not(.quiet)) {
  order: -1;
}

.drawn {
  min-width: 0;
}

.done {
  min-height: 76px;
  font-size: 1.5rem;
  font-weight: 660;
}

.small-acts {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  font-size: 1.0625rem;
}

.waiting {
  padding: 8px 12px;
  background: var(--tint);
  font-weight: 600;
}

summary {
  min-height: 44px;
  padding: 10px 0;
  border-top: 1.5px solid var(--ink);
  font-weight: 640;
  cursor: pointer;
}

.after {
  font-size: 1.0625rem;
}

@media (max-width: 859px) {
  .build,
  .right {
    display: block;
  }

  .left {
    gap: 0;
  }

  .left > *,
  .right > * {
    margin-top: 12px;
  }

  .top {
    margin-top: -14px;
  }

  .all {
    margin-bottom: 130px;
  }

  /* The acts lie at the thumb; the page goes on beneath. */
  .thumb {
    position: fixed;
    inset: auto 0 0;
    z-index: 4;
    padding: 10px 16px calc(4px + env(safe-area-inset-bottom));
    border-top: 1px solid var(--line);
    background: var(--paper);
  }
}
</style>
