<script setup lang="ts">
import { computed } from 'vue'
import type { ApplyAnswer, ApplyUse } from '@/api/client'
import { useSay } from '@/words/useSay'
import { RING_DEEP_CM, RING_FROM_CM, ringOut } from './uses'

/** The use to scale: a bed from above with as much of it as there is compost for, a pit in section, a pot in parts. */
const { use, told } = defineProps<{ use: ApplyUse; told: ApplyAnswer }>()
const { t, whole, fine, length, litres } = useSay()

/** The share that what there is does, never more than all. */
const share = computed(() => {
  const size = 'area_m2' in use ? use.area_m2 : 'count' in use ? use.count : use.volume_l
  const far = told.goes_how_far ?? size
  return Math.min(1, far / size)
})
const WIDE = 300
/** A bed is drawn three to two, as large as there is room. */
const bed = computed(() => ('area_m2' in use ? { side: Math.sqrt(use.area_m2 / 1.5) } : null))
/** A ring from above, as far out as what each tree gets at a time lies deep enough. */
const ring = computed(() => {
  if (use.kind !== 'trees') return null
  const out = ringOut(use.litres_each)
  return { out, inner: (96 * RING_FROM_CM) / out }
})
/** A pit of so many litres, half as deep as it is wide, with the compost in it. */
const pit = computed(() => {
  if (use.kind !== 'pits') return null
  const side = Math.cbrt(use.litres_each * 2) * 10
  return { side, deep: side / 2 }
})
const parts = computed(() => {
  if (use.kind !== 'mix') return null
  const all = use.compost_parts + use.other_parts
  return { compost: use.compost_parts / all, all }
})
const inWords = computed(() =>
  t(`apply.drawn.${use.kind}`, {
    share: whole(share.value * 100),
    length: bed.value ? whole(bed.value.side * 1.5 * 10) : '',
    width: bed.value ? whole(bed.value.side * 10) : '',
    side: pit.value ? length(pit.value.side) : '',
    out: ring.value ? length(ring.value.out) : '',
    deep: length(RING_DEEP_CM),
    from: length(RING_FROM_CM),
    compost: parts.value ? whole(parts.value.compost * 100) : '',
    litres: litres(told.need_l),
  }),
)
</script>

<template>
  <figure>
    <svg viewBox="0 0 340 220" role="img" :aria-label="inWords">
      <g v-if="bed">
        <rect x="20" y="10" :width="WIDE" height="190" class="ground" />
        <rect x="20" y="10" :width="WIDE * share" height="190" class="compost" />
        <path v-if="share < 1" :d="`M${20 + WIDE * share} 4v202`" class="edge" />
        <text x="170" y="214" text-anchor="middle">
          {{ `${fine(bed.side * 1.5)} m × ${fine(bed.side)} m` }}
        </text>
      </g>
      <g v-else-if="pit">
        <path d="M10 60h90l20 110h100l20 -110h90" class="ground-line" />
        <path d="M104 84l16 86h100l16 -86z" class="compost" />
        <path d="M170 150v-110M170 70l-26 -24M170 60l26 -26M170 44q-14 -20 0 -36q14 16 0 36z" class="plant" />
        <text x="170" y="204" text-anchor="middle">{{ `${length(pit.side)} × ${length(pit.deep)}` }}</text>
      </g>
      <g v-else-if="ring">
        <circle cx="170" cy="106" r="96" class="compost" />
        <circle cx="170" cy="106" :r="ring.inner" class="bare" />
        <circle cx="170" cy="106" r="7" class="trunk" />
        <path d="M170 106h96" class="ground-line" />
        <text x="272" y="110">{{ length(ring.out) }}</text>
      </g>
      <g v-else-if="parts">
        <path d="M90 20h160l-18 180h-124z" class="ground" />
        <path
          :d="`M${90 + 18 * (1 - parts.compost)} ${20 + 180 * (1 - parts.compost)}H${250 - 18 * (1 - parts.compost)}L232 200h-124z`"
          class="compost"
        />
        <text x="266" y="110">{{ `${whole(parts.compost * 100)} %` }}</text>
      </g>
      <g v-else>
        <path d="M70 30h200v150q0 20 -20 20h-160q-20 0 -20 -20z" class="ground" />
        <path d="M120 60q20 -14 40 0t40 0M120 90q20 -14 40 0t40 0" class="ground-line" />
        <path d="M140 130h60v50h-60z" class="compost" />
      </g>
    </svg>
    <figcaption class="small quiet">{{ inWords }}</figcaption>
  </figure>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-width: 420px;
}

.ground {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
}

.ground-line,
.plant {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
  stroke-linecap: round;
}

.compost {
  fill: var(--tint);
  stroke: var(--ink);
  stroke-width: 1;
  stroke-dasharray: 2 4;
}

.bare {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-dasharray: 2 4;
}

.trunk {
  fill: var(--ink);
}

.edge {
  stroke: var(--alarm);
  stroke-width: 2;
}

text {
  fill: var(--ink);
  font-size: 14px;
}
</style>
