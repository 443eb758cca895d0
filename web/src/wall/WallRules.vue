<script setup lang="ts">
import { computed, reactive } from 'vue'
import { useI18n } from 'vue-i18n'
import WallFrame from './WallFrame.vue'
import WallRule from './WallRule.vue'
import { useSteps } from './useSteps'

/** Two rules of thumb side by side: the room guesses what each truly gives, and is told why. */
const emit = defineEmits<{ leave: [] }>()
const { t } = useI18n()
const steps = reactive([1, 1])
const total = computed(() => Math.max(...steps) + 1)
const { at, next, back } = useSteps(total, () => emit('leave'))
</script>

<template>
  <WallFrame
    :over="t('rules.title')"
    :title="t('wall.askRule')"
    :at="at"
    :total="total"
    @next="next"
    @back="back"
    @leave="emit('leave')"
  >
    <div class="two">
      <WallRule :first="t('rules.preset.two-one')" :at="at" @steps="(n) => (steps[0] = n)" />
      <WallRule :first="t('wall.secondRule')" :at="at" @steps="(n) => (steps[1] = n)" />
    </div>
  </WallFrame>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 28px 4.4vw;
}

@media (max-width: 859px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
