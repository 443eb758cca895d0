<script setup lang="ts">
import { useI18n } from 'vue-i18n'

/** The two scales that need no instrument: a handful squeezed, and a stick felt after ten minutes in the middle. */
const { t } = useI18n()
const SQUEEZE = ['dusty', 'falls-apart', 'holds', 'drops', 'stream']
const STICK = ['cool', 'warm', 'hot', 'too-hot']
</script>

<template>
  <h3>{{ t('card.squeeze') }}</h3>
  <ol>
    <li v-for="feel in SQUEEZE" :key="feel" :class="{ right: feel === 'holds' }">
      {{ t(`feel.${feel}`) }}: {{ t(`card.squeezeMeans.${feel}`) }}
    </li>
  </ol>
  <h3>{{ t('card.stick') }}</h3>
  <ol>
    <li v-for="felt in STICK" :key="felt" :class="{ right: felt === 'hot' }">
      {{ t(`card.stickMeans.${felt}`) }}
    </li>
  </ol>
</template>

<style scoped>
h3 {
  margin-top: 8px;
  font-size: 1rem;
}

ol {
  font-size: 0.875rem;
}

li {
  padding-inline-start: 8px;
  border-inline-start: 3px solid var(--line);
  line-height: 1.3;
}

.right {
  border-color: var(--ink);
  font-weight: 640;
}
</style>
