<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { useSay } from '@/words/useSay'

/** Two who contradict each other, side by side, and the choice between them. */
defineProps<{ mine: string; theirs: string; by?: string }>()
defineEmits<{ mine: []; theirs: [] }>()
const { t } = useSay()
</script>

<template>
  <div class="clash">
    <section>
      <h2>{{ t('waits.here') }}</h2>
      <p>{{ mine }}</p>
      <ActButton variant="outlined" :label="t('waits.mine')" @click="$emit('mine')" />
    </section>
    <section>
      <h2>{{ by ? t('waits.atFarmBy', { by }) : t('waits.atFarm') }}</h2>
      <p>{{ theirs }}</p>
      <ActButton variant="outlined" :label="t('waits.theirs')" @click="$emit('theirs')" />
    </section>
  </div>
</template>

<style scoped>
.clash {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 20px;
  max-width: 760px;
  margin-top: 8px;
}

section {
  display: grid;
  gap: 8px;
  align-content: start;
}

h2 {
  font-size: 1rem;
  color: var(--ink-2);
}

p {
  min-height: 3em;
  overflow-wrap: anywhere;
}

section > :last-child {
  justify-self: start;
}

@media (max-width: 560px) {
  .clash {
    grid-template-columns: minmax(0, 1fr);
  }

  p {
    min-height: 0;
  }
}
</style>
