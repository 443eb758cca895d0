<script setup lang="ts">
import { computed } from 'vue'
import type { BatchPart, Confidence, Recipe } from '@/api/client'
import { useSay } from '@/words/useSay'
import { useHelp } from './useHelp'
import { useSure } from './useSure'

/** How sure the mix is, and the one test that would make it surer. */
const { sure, parts, recipe } = defineProps<{ sure: Confidence; parts: BatchPart[]; recipe: Recipe }>()
const emit = defineEmits<{ open: [] }>()

const say = useSay()
const { t } = say
const { works, ranges } = useSure()

/** The best test that can be done here; an analysis is for a laboratory, and comes after. */
const surer = useHelp(() => recipe)
const help = computed(() => {
  const helps = surer.value?.helps ?? []
  const best = helps.find(({ test }) => test !== 'analysis') ?? helps[0]
  const part = best && parts[best.item]
  if (!best || !part) return null
  const name = say.nameWithin(part.material, part.label)
  return {
    text: t(`sure.help.${best.test}`, { name, then: ranges(best.then) }),
    to: best.test !== 'analysis' && part.lot_id ? `/stock/${part.lot_id}/test/${best.test}` : null,
    act: t(`sure.do.${best.test}`, { name }),
  }
})
</script>

<template>
  <section class="sure" :aria-label="t('sure.title')">
    <p>
      <b>{{ works(sure) }}</b> {{ t('sure.shape', { ranges: ranges(sure) }) }}
      <button type="button" class="word-act" @click="emit('open')">{{ t('sure.open') }}</button>
    </p>
    <!-- Its room is kept: it comes when the mix is left alone, and pushes nothing away. -->
    <p class="quiet help">
      <template v-if="help">
        {{ help.text }}
        <RouterLink v-if="help.to" :to="help.to">{{ help.act }}</RouterLink>
      </template>
    </p>
  </section>
</template>

<style scoped>
.sure {
  margin-top: 4px;
  font-size: 0.9375rem;
  line-height: 1.35;
}

.sure p + p {
  margin-top: 4px;
}

.help {
  min-height: 4em;
}

.word-act {
  min-height: 0;
  padding: 0;
}
</style>
