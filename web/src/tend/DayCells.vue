<script setup lang="ts">
import { computed, ref, useId } from 'vue'
import type { HeatDayCell } from '@/api/client'
import { useSay } from '@/words/useSay'
import { heatColour, wantsInk } from './ramp'
import { telling, weeksOf } from './cells'

/** A row of day cells, a week in a line: how hot each was, which lie in a hot run, when it was turned. */
const { days, builtAt } = defineProps<{ days: HeatDayCell[]; builtAt: string }>()
const { t, whole, day, of } = useSay()
const id = useId()

const isAll = ref(false)
const all = computed(() => weeksOf(days))
const weeks = computed(() => (isAll.value ? all.value : telling(all.value)))
const words = (cell: HeatDayCell) =>
  [
    cell.hottest_c == null
      ? t('hot.cellNone', { day: day(cell.on) })
      : t('hot.cell', { day: day(cell.on), temp: of(cell.hottest_c, 'temperature') }),
    cell.in_run ? t('hot.cellRun') : '',
    cell.turned ? t('hot.cellTurned') : '',
  ]
    .filter(Boolean)
    .join(', ')
const inWords = computed(() => {
  const read = days.filter(({ hottest_c }) => hottest_c != null).length
  const inRun = days.filter(({ in_run }) => in_run).length
  const turned = days.filter(({ turned }) => turned).length
  return t('hot.cellsWords', { from: day(builtAt.slice(0, 10)), n: days.length, read, run: inRun, turned })
})
</script>

<template>
  <figure :aria-labelledby="id">
    <figcaption :id="id" class="small quiet">{{ inWords }}</figcaption>
    <div class="weeks" role="list">
      <div v-for="week in weeks" :key="week.nth" class="week" role="listitem">
        <span class="quiet small nth">{{ t('hot.week', { n: week.nth }) }}</span>
        <span
          v-for="cell in week.days"
          :key="cell.on"
          class="cell"
          role="img"
          :class="{ open: cell.hottest_c == null, run: cell.in_run }"
          :style="
            cell.hottest_c == null
              ? {}
              : {
                  background: heatColour(cell.hottest_c),
                  color: wantsInk(cell.hottest_c) ? '#000' : '#fff',
                }
          "
          :title="words(cell)"
          :aria-label="words(cell)"
        >
          <span aria-hidden="true"
            >{{ cell.hottest_c == null ? '·' : whole(cell.hottest_c)
            }}<span v-if="cell.turned" class="turned">↻</span></span
          >
        </span>
      </div>
    </div>
    <button v-if="telling(all).length < all.length" type="button" class="word-act" @click="isAll = !isAll">
      {{ isAll ? t('tend.fewer') : t('hot.allWeeks', { n: all.length }) }}
    </button>
    <p class="small quiet key">{{ t('hot.cellKey') }}</p>
  </figure>
</template>

<style scoped>
.weeks {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(330px, 1fr));
  gap: 4px 18px;
  margin-top: 6px;
}

.week {
  display: grid;
  grid-template-columns: 56px repeat(7, minmax(0, 1fr));
  gap: 3px;
  align-items: center;
}

.nth {
  white-space: nowrap;
}

.cell {
  position: relative;
  display: grid;
  place-items: center;
  height: 30px;
  border-bottom: 3px solid transparent;
  font-size: 0.8125rem;
  font-weight: 600;
}

.cell.open {
  border: 1px solid var(--line);
  color: var(--ink-2);
}

.cell.run {
  border-bottom-color: var(--ink);
}

.turned {
  position: absolute;
  top: -2px;
  right: 1px;
  font-size: 0.75rem;
}

.key {
  margin-top: 4px;
}

@media (max-width: 559px) {
  .weeks {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
