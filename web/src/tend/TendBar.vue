<script setup lang="ts">
import { ref } from 'vue'
import { useSay } from '@/words/useSay'
import { FIRST, OTHERS, type TendKind } from './forms'
import { glyphOf } from './glyphs'

/** What can be written down: what is written most often at once, the rest behind one more tap. */
const emit = defineEmits<{ pick: [kind: TendKind] }>()
const { t } = useSay()
const isAll = ref(false)
</script>

<template>
  <div class="bar" role="group" :aria-label="t('tend.bar')" data-deed="work">
    <button v-for="kind in FIRST" :key="kind" type="button" @click="emit('pick', kind)">
      <svg width="24" height="24" viewBox="0 0 18 18" aria-hidden="true"><path :d="glyphOf(kind)" /></svg>
      {{ t(`tend.do.${kind}`) }}
    </button>
    <button type="button" :aria-expanded="isAll" @click="isAll = !isAll">
      <svg width="24" height="24" viewBox="0 0 18 18" aria-hidden="true">
        <path :d="isAll ? 'M4 11l5-5l5 5' : 'M4 9h.1M9 9h.1M14 9h.1'" class="dots" />
      </svg>
      {{ t(isAll ? 'tend.less' : 'tend.more') }}
    </button>
    <template v-if="isAll">
      <button v-for="kind in OTHERS" :key="kind" type="button" class="other" @click="emit('pick', kind)">
        <svg width="20" height="20" viewBox="0 0 18 18" aria-hidden="true"><path :d="glyphOf(kind)" /></svg>
        {{ t(`tend.do.${kind}`) }}
      </button>
    </template>
  </div>
</template>

<style scoped>
.bar {
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  gap: 8px;
}

button {
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 3px;
  min-height: 68px;
  padding: 6px 4px;
  border: 1px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--sheet);
  font-weight: 600;
  line-height: 1.15;
  cursor: pointer;
}

button:hover {
  background: var(--tint);
}

.other {
  min-height: 58px;
  border-color: var(--line);
  font-weight: 500;
}

path {
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.4;
  stroke-linecap: round;
  stroke-linejoin: round;
}

.dots {
  stroke-width: 2.4;
}

@media (max-width: 859px) {
  .bar {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
}
</style>
