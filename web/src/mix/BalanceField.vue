<script setup lang="ts">
import { computed, ref, useId } from 'vue'
import { useI18n } from 'vue-i18n'
import { useFormatLocale } from '@/words/useFormatLocale'
import {
  AIM,
  closeView,
  type FieldWindow,
  moistureTicks,
  outlinePath,
  radius,
  ratioTicks,
  scales,
  type Place,
  wholeView,
  WORKS,
} from './field'
import { anchoredAt, placeLabels, textWidth } from '@/plan/labels'
import { sayWhole } from '@/words/say'

/** Moisture across, C:N up: every lot a mark, the mix a mark, the window drawn in. */
export interface FieldLot extends Place {
  key: number
  name: string
  hatch: string
  kg: number
}

const {
  lots,
  mix,
  selected,
  oneMore,
  outline = [],
  aim = AIM,
  works = WORKS,
  width,
  height,
} = defineProps<{
  lots: FieldLot[]
  mix: Place | null
  /** Index of the lot whose next step the arrow shows. */
  selected: number | null
  oneMore: Place | null
  /** A line around what the mix may turn out to be. */
  outline?: Place[]
  /** The window aimed for, and the one that still works. */
  aim?: FieldWindow
  works?: FieldWindow
  width: number
  height: number
}>()
const emit = defineEmits<{ select: [index: number]; step: [index: number, steps: number] }>()

const { t } = useI18n()
const locale = useFormatLocale()

const arrow = useId()
const clip = useId()
const close = ref(false)
const frame = computed(() => ({ left: 40, top: 10, width: width - 52, height: height - 50 }))
const view = computed(() => (close.value ? closeView(mix, works) : wholeView(lots)))
const scale = computed(() => scales(view.value, frame.value))
const total = computed(() => lots.reduce((sum, lot) => sum + lot.kg, 0))
const bottom = computed(() => frame.value.top + frame.value.height)

function at({ moisture_pct, c_n }: Place) {
  return { x: scale.value.x(moisture_pct), y: scale.value.y(Math.max(c_n, 0.5)) }
}

function box({ moisture, ratio }: FieldWindow) {
  const { x, y } = scale.value
  return {
    x: x(moisture[0]),
    y: y(ratio[1]),
    width: x(moisture[1]) - x(moisture[0]),
    height: y(ratio[0]) - y(ratio[1]),
  }
}

const aimBox = computed(() => box(aim))
const worksBox = computed(() => box(works))

const marks = computed(() => lots.map((lot) => ({ ...lot, ...at(lot), r: radius(lot.kg, total.value) })))
const mixAt = computed(() => (mix ? at(mix) : null))
const doubt = computed(() => (mix ? outlinePath(outline, scale.value) : ''))

const inView = (mark: { x: number; y: number }) =>
  mark.x >= frame.value.left &&
  mark.x <= frame.value.left + frame.value.width &&
  mark.y >= frame.value.top &&
  mark.y <= bottom.value

const labels = computed(() => {
  const shown = marks.value.filter(inView)
  const mixMark = mixAt.value ? [{ ...mixAt.value, r: 9, text: t('bench.mix') }] : []
  const words = [
    // Close up the aim is large enough to write in, beside its own name.
    aimBox.value.width < 80 ? aimBox.value : { x: aimBox.value.x, y: aimBox.value.y, width: 40, height: 20 },
    {
      x: worksBox.value.x + worksBox.value.width + 5,
      y: worksBox.value.y,
      width: textWidth(t('bench.works')),
      height: 16,
    },
  ]
  const placed = placeLabels(
    [...mixMark, ...shown.map(({ x, y, r, name }) => ({ x, y, r, text: shorten(name) }))],
    { x: frame.value.left, y: frame.value.top, width: frame.value.width, height: frame.value.height },
    words,
  )
  const [mixLabel, rest] = mixMark.length ? [placed[0], placed.slice(1)] : [null, placed]
  return { mix: mixLabel, lots: rest.filter((label) => label !== null) }
})

const longest = computed(() => (width < 390 ? 16 : 22))
const shorten = (name: string) =>
  name.length > longest.value ? `${name.slice(0, longest.value - 1).trimEnd()}…` : name

const step = computed(() => {
  if (!mixAt.value || !oneMore) return null
  const to = at(oneMore)
  const from = mixAt.value
  return Math.hypot(to.x - from.x, to.y - from.y) < 2 ? null : { from, to }
})

/** Where marks crowd, a tap means the one it is nearest to. */
function nearest({ offsetX, offsetY }: MouseEvent, tapped: number): number {
  const away = (index: number) => Math.hypot(marks.value[index]!.x - offsetX, marks.value[index]!.y - offsetY)
  return marks.value.reduce((best, _, index) => (away(index) < away(best) ? index : best), tapped)
}

function onKey(event: KeyboardEvent, index: number) {
  if (event.key === 'ArrowUp' || event.key === 'ArrowRight') emit('step', index, 1)
  else if (event.key === 'ArrowDown' || event.key === 'ArrowLeft') emit('step', index, -1)
  else if (event.key === 'Enter' || event.key === ' ') emit('select', index)
  else return
  event.preventDefault()
}

const inWords = computed(() =>
  mix
    ? t('bench.fieldText', {
        water: sayWhole(mix.moisture_pct, locale.value),
        ratio: sayWhole(mix.c_n, locale.value),
        low: sayWhole(aim.ratio[0], locale.value),
        high: sayWhole(aim.ratio[1], locale.value),
        dry: aim.moisture[0],
        wet: aim.moisture[1],
      })
    : t('bench.empty'),
)
</script>

<template>
  <section class="field" :aria-label="t('bench.field')">
    <header class="ruled">
      <h2>{{ t('bench.field') }}</h2>
      <button type="button" class="word-act zoom" :aria-pressed="close" @click="close = !close">
        {{ close ? t('bench.zoomOut') : t('bench.zoomIn') }}
      </button>
    </header>
    <p class="only-read">{{ inWords }}</p>
    <svg
      :width="width"
      :height="height"
      :viewBox="`0 0 ${width} ${height}`"
      role="group"
      :aria-label="t('bench.fieldAxes')"
    >
      <defs>
        <marker
          :id="arrow"
          viewBox="0 0 8 8"
          refX="7"
          refY="4"
          markerWidth="7"
          markerHeight="7"
          orient="auto"
        >
          <path d="M0 0L8 4L0 8z" class="act" />
        </marker>
        <clipPath :id="clip">
          <rect :x="frame.left" :y="frame.top" :width="frame.width" :height="frame.height" />
        </clipPath>
      </defs>
      <g aria-hidden="true">
        <g v-for="tick in ratioTicks(view, frame.height)" :key="`r${tick}`">
          <path :d="`M${frame.left} ${scale.y(tick)}H${frame.left + frame.width}`" class="grid" />
          <text :x="frame.left - 7" :y="scale.y(tick) + 4.5" text-anchor="end" class="axis">{{ tick }}</text>
        </g>
        <g v-for="tick in moistureTicks(view)" :key="`m${tick}`">
          <path :d="`M${scale.x(tick)} ${frame.top}V${bottom}`" class="grid" />
          <text :x="scale.x(tick)" :y="bottom + 17" text-anchor="middle" class="axis">{{ tick }}</text>
        </g>
        <text :x="frame.left" :y="bottom + 34" class="axis">{{ t('bench.dry') }}</text>
        <text :x="frame.left + frame.width" :y="bottom + 34" text-anchor="end" class="axis">
          {{ t('bench.wet') }}
        </text>
        <g :clip-path="`url(#${clip})`">
          <rect v-bind="worksBox" class="works" />
          <rect v-bind="aimBox" class="aim" />
          <path v-if="doubt" :d="doubt" class="doubt" />
        </g>
        <text :x="worksBox.x + worksBox.width + 5" :y="worksBox.y + 12" class="axis">
          {{ t('bench.works') }}
        </text>
        <text v-if="aimBox.height > 18" :x="aimBox.x + 5" :y="aimBox.y + 15" class="axis strong">
          {{ t('bench.aim') }}
        </text>
      </g>
      <g :clip-path="`url(#${clip})`">
        <g
          v-for="(mark, index) in marks"
          :key="mark.key"
          class="lot"
          :class="{ chosen: index === selected }"
          role="button"
          tabindex="0"
          :aria-pressed="index === selected"
          :aria-label="
            t('bench.lotText', {
              name: mark.name,
              water: sayWhole(mark.moisture_pct, locale),
              ratio: sayWhole(mark.c_n, locale),
            })
          "
          :transform="`translate(${mark.x} ${mark.y})`"
          @click="emit('select', nearest($event, index))"
          @keydown="onKey($event, index)"
        >
          <circle r="22" class="reach" />
          <circle :r="mark.r" class="sheet" />
          <circle :r="mark.r" class="mark" :fill="`url(#${mark.hatch})`" />
        </g>
        <g v-if="step" aria-hidden="true">
          <path
            :d="`M${step.from.x} ${step.from.y}L${step.to.x} ${step.to.y}`"
            class="arrow"
            :marker-end="`url(#${arrow})`"
          />
        </g>
      </g>
      <g aria-hidden="true" class="unreachable">
        <circle
          v-if="mixAt"
          r="8"
          class="mix"
          :style="{ transform: `translate(${mixAt.x}px, ${mixAt.y}px)` }"
        />
        <template v-for="label in labels.lots" :key="`line ${label.text}${label.x}`">
          <path
            v-if="label.leader"
            :d="`M${label.leader.from.x} ${label.leader.from.y}L${label.leader.to.x} ${label.leader.to.y}`"
            class="leader"
          />
        </template>
        <text
          v-for="label in labels.lots"
          :key="label.text + label.x"
          :x="anchoredAt(label)"
          :y="label.y + 12"
          :text-anchor="label.anchor"
          class="name"
        >
          {{ label.text }}
        </text>
        <text
          v-if="labels.mix"
          :x="anchoredAt(labels.mix)"
          :y="labels.mix.y + 12"
          :text-anchor="labels.mix.anchor"
          class="name strong act"
        >
          {{ t('bench.mix') }}
        </text>
      </g>
    </svg>
  </section>
</template>

<style scoped>
.zoom {
  min-height: 0;
  padding: 0;
  font-size: 0.875rem;
}

svg {
  display: block;
  max-width: 100%;
}

.grid {
  stroke: var(--line);
  stroke-width: 0.6;
}

.axis {
  font-size: 12px;
  fill: var(--ink-2);
}

.name {
  font-size: 13px;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
  stroke-linejoin: round;
}

/* From the middle of its mark, so that it names one and no other. */
.leader {
  stroke: var(--ink);
  stroke-width: 1;
}

.strong {
  font-weight: 680;
}

.act {
  fill: var(--act);
}

.works {
  fill: var(--paper-2);
  stroke: var(--ink-2);
  stroke-dasharray: 3 3;
}

.aim {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.6;
}

.doubt {
  fill: var(--act);
  fill-opacity: 0.13;
  stroke: var(--act);
  stroke-width: 1.2;
  stroke-dasharray: 1.5 3;
  stroke-linecap: round;
}

.reach {
  fill: transparent;
}

.sheet {
  fill: var(--sheet);
}

.mark {
  stroke: var(--ink);
  stroke-width: 1.2;
}

.lot {
  cursor: pointer;
}

.lot:focus {
  outline: none;
}

.lot:focus-visible .mark,
.chosen .mark {
  stroke: var(--act);
  stroke-width: 3;
}

.lot:focus-visible .reach {
  stroke: var(--act);
  stroke-width: 2;
}

.mix {
  fill: var(--act);
  stroke: var(--paper);
  stroke-width: 2;
  transition: transform 0.25s ease-out;
}

.arrow {
  stroke: var(--act);
  stroke-width: 2.2;
}

.unreachable {
  pointer-events: none;
}
</style>
