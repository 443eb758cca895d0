<script setup lang="ts">
import { useI18n } from 'vue-i18n'

/** The words of the work, each explained once; those that a page opens lead there. */
const { t } = useI18n()

const WORDS: { word: string; to?: string }[] = [
  { word: 'material', to: '/reference' },
  { word: 'lot', to: '/stock' },
  { word: 'measure', to: '/measures' },
  { word: 'mix', to: '/bench' },
  { word: 'batch', to: '/batches' },
  { word: 'heap' },
  { word: 'method', to: '/methods' },
  { word: 'layer', to: '/layers' },
  { word: 'cycle' },
  { word: 'c_n', to: '/rules' },
  { word: 'counted' },
  { word: 'moisture' },
  { word: 'dry_matter' },
  { word: 'air' },
  { word: 'frame' },
  { word: 'squeeze' },
  { word: 'starter' },
]
</script>

<template>
  <header class="page-head">
    <div>
      <h1>{{ t('words.title') }}</h1>
      <p>{{ t('words.lead') }}</p>
    </div>
  </header>
  <dl>
    <div v-for="{ word, to } in WORDS" :id="word" :key="word">
      <dt>
        <RouterLink v-if="to" :to="to">{{ t(`words.word.${word}`) }}</RouterLink>
        <template v-else>{{ t(`words.word.${word}`) }}</template>
      </dt>
      <dd>{{ t(`words.means.${word}`) }}</dd>
    </div>
  </dl>
</template>

<style scoped>
dl {
  max-width: 900px;
  margin: 18px 0 0;
  border-top: 1.5px solid var(--ink);
}

dl > div {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  gap: 4px 20px;
  padding: 10px 0;
  border-bottom: 1px solid var(--line);
}

dt {
  font-weight: 660;
}

dd {
  margin: 0;
}

@media (max-width: 859px) {
  dl > div {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
