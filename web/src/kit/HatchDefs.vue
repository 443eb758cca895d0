<script setup lang="ts">
import { FAMILIES, hatchId, VARIANTS, type Family } from './hatch'

interface Stroke {
  width: number
  height: number
  line?: string
  thick?: string
  dots?: [number, number, number][]
  rings?: [number, number, number][]
  grains?: [number, number, number][]
}

/** What each family is drawn with: strokes for straw, open dots for dung, angles for scraps, rings for wood. */
const STROKES: Record<Family, Stroke> = {
  straw: { width: 14, height: 9, line: 'M0 8L9 2M7 9L14 4.5M-2 4L3 1' },
  stalk: { width: 18, height: 11, line: 'M1 9L12 3M12 3l-1-2.5M12 3l3 .2M10 11L18 7M0 4L5 1' },
  leaf: { width: 15, height: 13, line: 'M2 10q1-7 7-7q0 7-7 7zM2 10L7 5M9 13q0-3 3-4' },
  grass: { width: 12, height: 10, line: 'M3 9q0-5 -2-7M3 9q0-5 2-7M9 6q0-4-1.5-5M9 6q0-4 2-5' },
  tops: { width: 16, height: 12, line: 'M4 11V4M4 8q-3 0-3-3M4 6q3 0 3-3M12 8V1M12 5q-3 0-3-3M12 4q3 0 3-3' },
  dung: {
    width: 12,
    height: 10,
    rings: [
      [3, 3, 1.8],
      [9, 8, 1.8],
    ],
  },
  pellet: {
    width: 10,
    height: 9,
    grains: [
      [3, 3, -25],
      [8, 7, 30],
    ],
  },
  scrap: { width: 14, height: 11, line: 'M2 6l3-4 3 4M8 10l3-4 3 4' },
  wood: {
    width: 18,
    height: 16,
    rings: [
      [5, 5, 3.6],
      [5, 5, 1.4],
      [14, 12, 3.2],
      [14, 12, 1.2],
    ],
  },
  twig: { width: 26, height: 16, thick: 'M0 12L20 5M10 16L26 9M12 8l4 5M3 4l10-3' },
  paper: { width: 12, height: 12, line: 'M0 3H12M0 9H12M3 3V9M9 -3V3M9 9V15' },
  husk: { width: 14, height: 10, line: 'M1 4q3-4 6 0M8 9q3-4 6 0' },
  pulp: {
    width: 14,
    height: 10,
    line: 'M1 3q2 2 4 0M8 8q2 2 4 0',
    dots: [
      [9, 2.5, 0.9],
      [3, 8, 0.9],
    ],
  },
  meal: {
    width: 9,
    height: 8,
    dots: [
      [2, 2, 1],
      [6.5, 6, 1],
    ],
    line: 'M5 2h2M1 6h2',
  },
  fleece: { width: 16, height: 12, line: 'M2 6q0-4 4-4t2 4-3 1 2-3M10 11q0-4 4-4t1 3' },
  grain: {
    width: 9,
    height: 9,
    dots: [
      [2, 2, 0.9],
      [6.5, 4, 0.9],
      [3.5, 7, 0.9],
    ],
  },
  soil: { width: 12, height: 8, line: 'M1 3h5M7 7h4' },
  liquid: { width: 16, height: 8, line: 'M0 5q4-4 8 0t8 0' },
}

/** Four turns of the same strokes, far enough apart to tell at 40 px. */
const TURNS = ['', 'rotate(64) scale(1)', 'rotate(-28) scale(1.4)', 'rotate(110) scale(0.72)']

const patterns = FAMILIES.flatMap((family) =>
  Array.from({ length: VARIANTS }, (_, variant) => ({
    id: hatchId(family, variant),
    turn: TURNS[variant],
    ...STROKES[family],
  })),
)
</script>

<template>
  <svg class="only-read" aria-hidden="true" width="0" height="0">
    <defs>
      <pattern
        v-for="pattern in patterns"
        :id="pattern.id"
        :key="pattern.id"
        :width="pattern.width"
        :height="pattern.height"
        :patternTransform="pattern.turn"
        patternUnits="userSpaceOnUse"
      >
        <path v-if="pattern.line" :d="pattern.line" class="hatch-line" />
        <path v-if="pattern.thick" :d="pattern.thick" class="hatch-thick" />
        <circle
          v-for="([x, y, r], at) in pattern.dots"
          :key="`d${at}`"
          :cx="x"
          :cy="y"
          :r="r"
          class="hatch-dot"
        />
        <circle
          v-for="([x, y, r], at) in pattern.rings"
          :key="`r${at}`"
          :cx="x"
          :cy="y"
          :r="r"
          class="hatch-line"
        />
        <ellipse
          v-for="([x, y, turn], at) in pattern.grains"
          :key="`g${at}`"
          :cx="x"
          :cy="y"
          rx="2"
          ry="1"
          :transform="`rotate(${turn} ${x} ${y})`"
          class="hatch-dot"
        />
      </pattern>
      <pattern id="hatch-water" width="16" height="8" patternUnits="userSpaceOnUse">
        <path d="M0 5q4-4 8 0t8 0" class="hatch-line" />
      </pattern>
      <pattern id="hatch-twigs" width="34" height="14" patternUnits="userSpaceOnUse">
        <path d="M1 3L20 6L33 4M8 5L13 1M4 11L18 9L30 12M22 10L27 7" class="hatch-line" />
      </pattern>
      <pattern id="hatch-ground" width="12" height="8" patternUnits="userSpaceOnUse">
        <path d="M1 3h5M7 7h4" class="hatch-line" />
      </pattern>
    </defs>
  </svg>
</template>
