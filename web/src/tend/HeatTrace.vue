<script setup lang="ts">
import { computed, ref, toRef, useTemplateRef } from 'vue'
import StateNote from '@/kit/StateNote.vue'
import { useWidth } from '@/kit/useWidth'
import { useUnits } from '@/words/useUnits'
import { glyphOf } from './glyphs'
import { heatColour, heatStops } from './ramp'
import { draw, expectedAt, HEAT_LINES, MARGIN, readAt } from './trace'
import TraceTable from './TraceTable.vue'
import { useDrag } from './useDrag'
import { useLogWords } from './useLogWords'
import { useTrace } from './useTrace'
import { useTraceWords } from './useTraceWords'

/** What was read of a heap, over what was expected of it, with what was done. */
const { id } = defineProps<{ id: string }>()

const { say, t } = useLogWords()
const units = useUnits()
const { trace, all, error, retry, view, isWhole, zoom, pan, look, lookAtAll } = useTrace(toRef(() => id))

const box = useTemplateRef<HTMLElement>('box')
const width = useWidth(box, 328)
const height = computed(() => (width.value < 520 ? 290 : 360))
const drawn = computed(() => trace.value && draw(trace.value, view.value, width.value, height.value))
const isNarrow = computed(() => width.value < 520)
const { inWords, day } = useTraceWords(all)

/** Where a finger or the mouse points, ms. */
const pointed = ref<number | null>(null)
const msAt = (px: number) => {
  const [from, to] = view.value
  const { left, right } = MARGIN
  return from + ((px - left) / (width.value - left - right)) * (to - from)
}
const drag = useDrag({
  element: useTemplateRef<SVGSVGElement>('picture'),
  pan: (px) => pan(-px / (width.value - MARGIN.left - MARGIN.right)),
  zoom: (by, px) => zoom(by, msAt(px)),
  point: (px) => (pointed.value = px === null ? null : msAt(px)),
})

const readout = computed(() => {
  const at = pointed.value
  if (at === null || !trace.value) return ''
  const when = say.time(new Date(at).toISOString())
  const read = readAt(trace.value, at).map(({ place, celsius }) =>
    t(`tend.at.${place}`, { temp: say.of(celsius, 'temperature') }),
  )
  const expected = expectedAt(trace.value, at)
  const band = expected
    ? t('trace.expectedAt', {
        low: say.of(expected[0], 'temperature'),
        high: say.of(expected[1], 'temperature'),
      })
    : ''
  return t('trace.readout', { when, day: day(at), read: [...read, band].filter(Boolean).join(', ') })
})

function onKey(event: KeyboardEvent) {
  const does: Record<string, () => void> = {
    ArrowLeft: () => pan(-0.2),
    ArrowRight: () => pan(0.2),
    '+': () => zoom(1.6),
    '=': () => zoom(1.6),
    '-': () => zoom(1 / 1.6),
    Home: lookAtAll,
    '0': lookAtAll,
  }
  const act = does[event.key]
  if (!act || event.ctrlKey || event.metaKey || event.altKey) return
  event.preventDefault()
  act()
}

const lines = computed(() =>
  HEAT_LINES.map(({ celsius, name }) => ({
    y: drawn.value?.y(celsius) ?? 0,
    words: t(`trace.line.${name}`, { temp: say.of(celsius, 'temperature') }),
    celsius,
  })),
)
const stops = computed(() => {
  if (!drawn.value) return []
  const { y } = drawn.value
  return heatStops().map(({ celsius, colour }) => ({ at: y(celsius), colour }))
})
const warm = (celsius: number) => Math.round(units.shown(celsius, 'temperature'))
const foot = computed(() => height.value - MARGIN.bottom)
/** The end of each line in sight, to write beside. */
const ends = computed(() => (drawn.value && drawn.value.lines.length > 1 ? drawn.value.ends : []))
const lookAt = (days: number) =>
  trace.value && look([trace.value.now_ms - days * 86_400_000, trace.value.now_ms + days * 14_400_000])
</script>

<template>
  <section :aria-label="t('trace.title')">
    <h2 class="ruled">
      {{ t('trace.title') }}
      <span v-if="all?.is_simulated" class="simulated">{{ t('trace.simulated') }}</span>
    </h2>
    <figure ref="box">
      <StateNote v-if="!trace || !drawn" :error="error" @retry="retry" />
      <!-- eslint-disable-next-line vuejs-accessibility/no-static-element-interactions -->
      <svg
        v-else
        ref="picture"
        :width="width"
        :height="height"
        role="img"
        tabindex="0"
        :aria-label="inWords"
        :aria-describedby="`keys-${id}`"
        @keydown="onKey"
        v-on="drag"
      >
        <defs>
          <linearGradient :id="`heat-${id}`" gradientUnits="userSpaceOnUse" x1="0" :y1="height" x2="0" y2="0">
            <stop
              v-for="stop in stops"
              :key="stop.at"
              :offset="1 - stop.at / height"
              :stop-color="stop.colour"
            />
          </linearGradient>
          <clipPath :id="`clip-${id}`">
            <rect
              :x="MARGIN.left"
              y="0"
              :width="Math.max(0, width - MARGIN.left - MARGIN.right)"
              :height="foot + 1"
            />
          </clipPath>
        </defs>
        <g v-for="tick in drawn.warmth" :key="tick.celsius">
          <path :d="`M${MARGIN.left} ${tick.y}H${width - MARGIN.right}`" class="grid" />
          <text :x="MARGIN.left - 6" :y="tick.y + 4" text-anchor="end">{{ warm(tick.celsius) }}</text>
        </g>
        <g :clip-path="`url(#clip-${id})`">
          <rect
            v-for="run in drawn.runs"
            :key="run.x"
            :x="run.x"
            :width="run.width"
            :y="MARGIN.top"
            :height="Math.max(0, drawn.y(55) - MARGIN.top)"
            class="run"
          />
          <path :d="drawn.band" class="band" />
          <path :d="drawn.ahead" class="ahead" />
          <path v-for="edge in drawn.aheadEdges" :key="edge" :d="edge" class="ahead-edge" />
          <path :d="drawn.air" class="air" />
          <g v-for="heat in lines" :key="heat.celsius">
            <path
              :d="`M${MARGIN.left} ${heat.y}H${width - MARGIN.right}`"
              class="hot-line"
              :style="{ stroke: heatColour(heat.celsius) }"
            />
          </g>
          <rect
            v-for="stick in drawn.sticks"
            :key="stick.x"
            :x="stick.x - 4"
            :y="stick.y"
            width="8"
            :height="stick.height"
            class="stick"
          >
            <title>{{ t('tend.stickIs', { feel: t(`tend.feel.${stick.feel}`) }) }}</title>
          </rect>
          <template v-for="line in drawn.lines" :key="line.place">
            <path v-if="line.place === 'core'" :d="line.path" class="core-ground" />
            <path
              :d="line.path"
              :class="['line', line.place]"
              :style="line.place === 'core' ? { stroke: `url(#heat-${id})` } : {}"
            />
            <circle
              v-for="dot in line.dots"
              :key="dot.x"
              :cx="dot.x"
              :cy="dot.y"
              :r="line.place === 'core' ? 4 : 2.5"
              class="dot"
              :style="{ fill: heatColour(dot.celsius) }"
            />
          </template>
          <path
            v-for="bad in drawn.faulty"
            :key="`${bad.x}-${bad.y}`"
            :d="`M${bad.x - 3} ${bad.y - 3}l6 6m0-6l-6 6`"
            class="faulty"
          />
        </g>
        <g v-for="heat in lines" :key="heat.celsius">
          <text :x="width - MARGIN.right" :y="heat.y - 3" text-anchor="end" class="over">
            {{ heat.words }}
          </text>
        </g>
        <g v-for="end in ends" :key="end.place">
          <text :x="end.x" :y="end.y + 4" class="over end">
            {{ t(`tend.place.${end.place}`) }}
          </text>
        </g>
        <g v-if="drawn.now !== null">
          <path :d="`M${drawn.now} ${MARGIN.top}V${foot}`" class="now" />
          <text :x="drawn.now + 4" :y="MARGIN.top + 2" class="now-word">{{ t('trace.now') }}</text>
        </g>
        <path :d="`M${MARGIN.left} ${foot}H${width - MARGIN.right}`" class="axis" />
        <g v-for="sign in drawn.signs" :key="sign.at_ms">
          <path v-if="sign.kinds.includes('turn')" :d="`M${sign.x} ${MARGIN.top}V${foot}`" class="turned" />
          <g
            v-for="(kind, nth) in sign.kinds"
            :key="kind"
            :transform="`translate(${sign.x - 8} ${foot + 4 + nth * 17}) scale(.9)`"
          >
            <title>{{ t(`tend.kind.${kind}`) }}</title>
            <path :d="glyphOf(kind)" class="sign" />
          </g>
        </g>
        <text v-for="tick in drawn.ticks" :key="tick.x" :x="tick.x" :y="height - 4" text-anchor="middle">
          {{
            tick.hour === null
              ? isNarrow
                ? tick.day
                : t('trace.day', { day: tick.day })
              : t('trace.hour', { day: tick.day, hour: tick.hour })
          }}
        </text>
        <path v-if="pointed !== null" :d="`M${drawn.x(pointed)} ${MARGIN.top}V${foot}`" class="pointed" />
      </svg>
      <p class="readout small" :class="{ idle: !readout }">{{ readout || t('trace.point') }}</p>
      <div class="tools">
        <button type="button" :aria-label="t('trace.earlier')" :disabled="isWhole" @click="pan(-0.5)">
          ‹
        </button>
        <button type="button" :aria-label="t('trace.nearer')" @click="zoom(2)">+</button>
        <button type="button" :aria-label="t('trace.farther')" :disabled="isWhole" @click="zoom(0.5)">
          −
        </button>
        <button type="button" :aria-label="t('trace.later')" :disabled="isWhole" @click="pan(0.5)">›</button>
        <button type="button" class="word" @click="lookAt(3)">{{ t('trace.lastDays') }}</button>
        <button type="button" class="word" :disabled="isWhole" @click="lookAtAll">
          {{ t('trace.all') }}
        </button>
      </div>
      <figcaption class="small">
        <p>{{ inWords }}</p>
        <p class="quiet">
          {{
            all?.not_expected
              ? t('trace.notExpected', { why: t(`fault.${all.not_expected}`) })
              : t('trace.note')
          }}
          {{ all && !all.not_expected && !all.has_air ? t('trace.noAir') : '' }}
          {{ all?.faulty_count ? t('trace.faulty', { n: all.faulty_count }, all.faulty_count) : '' }}
        </p>
        <p :id="`keys-${id}`" class="only-read">{{ t('trace.keys') }}</p>
      </figcaption>
    </figure>
    <details v-if="all" class="table">
      <summary>{{ t('trace.asTable') }}</summary>
      <TraceTable :trace="all" />
    </details>
  </section>
</template>

<style scoped src="./trace.css"></style>
