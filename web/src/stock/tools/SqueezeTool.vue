<script setup lang="ts">
import { ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Feel, Lot, Readings, TestAnswer } from '@/api/client'
import ToolSteps from './ToolSteps.vue'

/** The squeeze test: moisture by hand, in five steps from dusty to a stream. */
const { first } = defineProps<{ lot: Lot; first: Readings | null; answer: TestAnswer | null }>()
const emit = defineEmits<{ 'update:readings': [readings: Readings | null] }>()
const { t } = useI18n()

/** The feel, how much of the ball holds together, and the drops that run. */
const FEELS: { feel: Feel; crumbs: number; drops: number }[] = [
  { feel: 'dusty', crumbs: 9, drops: 0 },
  { feel: 'falls-apart', crumbs: 5, drops: 0 },
  { feel: 'holds', crumbs: 0, drops: 1 },
  { feel: 'drops', crumbs: 0, drops: 4 },
  { feel: 'stream', crumbs: 0, drops: 9 },
]

const feel = ref<Feel | ''>(first?.kind === 'squeeze' ? first.feel : '')
watch(feel, (now) => emit('update:readings', now ? { kind: 'squeeze', feel: now } : null), {
  immediate: true,
})

const FIST =
  'M34 30q-4-16 9-19h26q13 2 13 16v9q0 17-18 17h-14q-12 0-16-23zM47 11v17M58 11v17M69 12v16M34 30q8-3 16 2q8 4 20 0'
const crumb = (index: number) => ({ cx: 28 + ((index * 37) % 62), cy: 66 + ((index * 23) % 34) })
const drop = (index: number, of: number) => ({
  x: of > 6 ? 58 + (index % 3) * 3 - 3 : 44 + index * 10,
  y: of > 6 ? 58 + index * 7 : 62 + ((index * 17) % 30),
})
</script>

<template>
  <ToolSteps kind="squeeze" :count="2">
    <template #drawing>
      <svg
        viewBox="0 0 116 130"
        role="img"
        :aria-label="feel ? t(`feel.${feel}`) : t('tool.squeeze.drawing')"
      >
        <path :d="FIST" class="hatch-line" />
        <template v-for="one in FEELS" :key="one.feel">
          <g v-if="one.feel === feel">
            <circle
              v-for="index in one.crumbs"
              :key="`c${index}`"
              v-bind="crumb(index)"
              r="2.2"
              class="hatch-dot"
            />
            <path
              v-for="index in one.drops"
              :key="`d${index}`"
              :d="`M${drop(index - 1, one.drops).x} ${drop(index - 1, one.drops).y}q4 6 0 8q-4-2 0-8z`"
              class="drop"
            />
          </g>
        </template>
      </svg>
    </template>
    <fieldset>
      <legend class="only-read">{{ t('test.squeeze') }}</legend>
      <label v-for="one in FEELS" :key="one.feel" :class="{ chosen: feel === one.feel }">
        <input v-model="feel" type="radio" name="feel" :value="one.feel" />
        <svg width="58" height="60" viewBox="0 0 116 120" aria-hidden="true">
          <path :d="FIST" class="hatch-line" />
          <circle
            v-for="index in one.crumbs"
            :key="`c${index}`"
            v-bind="crumb(index)"
            r="3"
            class="hatch-dot"
          />
          <path
            v-for="index in one.drops"
            :key="`d${index}`"
            :d="`M${drop(index - 1, one.drops).x} ${drop(index - 1, one.drops).y}q5 8 0 10q-5-2 0-10z`"
            class="drop"
          />
        </svg>
        <span
          >{{ t(`feel.${one.feel}`) }}<small>{{ t(`feelMeans.${one.feel}`) }}</small></span
        >
      </label>
    </fieldset>
    <p class="quiet small">{{ t('tool.squeeze.schools') }}</p>
  </ToolSteps>
</template>

<style scoped>
fieldset {
  margin: 0;
  padding: 0;
  border: 0;
}

label {
  display: grid;
  grid-template-columns: 24px 58px minmax(0, 1fr);
  gap: 12px;
  align-items: center;
  min-height: 66px;
  border-bottom: 1px solid var(--line);
  cursor: pointer;
}

label.chosen {
  background: var(--tint);
}

input {
  width: 22px;
  height: 22px;
  accent-color: var(--act);
}

small {
  display: block;
  color: var(--ink-2);
}

.drop {
  fill: var(--act);
}
</style>
