<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { useAbout, useSite } from '@/composables/useFarm'

const { t } = useI18n()
const { site } = useSite()
const { about } = useAbout()

const PLACES = [
  { to: '/stock', name: 'stock', path: 'M4 9h18v12H4zM7 9V5h12v4M4 14h18' },
  { to: '/bench', name: 'bench', path: 'M5 5h17v17H5zM12 12a3 3 0 1 0 6 0a3 3 0 1 0-6 0' },
  { to: '/layers', name: 'layers', path: 'M2 22L8 7h10l6 15zM6.5 12h13M4.6 17h17' },
  { to: '/batches', name: 'batches', path: 'M6 4h14v18H6zM10 4v18M13 9h4M13 13h4' },
]
</script>

<template>
  <nav class="rail" :aria-label="t('nav.label')">
    <div class="site">
      {{ site?.name }}<span v-if="about?.demo" class="demo">{{ t('app.demo') }}</span>
    </div>
    <RouterLink v-for="place in PLACES" :key="place.name" :to="place.to">
      <svg width="26" height="26" aria-hidden="true"><path :d="place.path" class="hatch-line" /></svg>
      <span>{{ t(`nav.${place.name}`) }}</span>
    </RouterLink>
  </nav>
</template>

<style scoped>
.rail {
  position: sticky;
  top: 0;
  height: 100dvh;
  padding: 14px 0;
  display: flex;
  flex-direction: column;
  gap: 2px;
  border-right: 1px solid var(--line);
}

.site {
  min-height: 62px;
  padding: 0 10px 12px;
  font-size: 0.8125rem;
  line-height: 1.2;
  color: var(--ink-2);
  overflow-wrap: anywhere;
}

.demo {
  display: block;
  margin-top: 3px;
  font-style: italic;
}

.rail a {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 2px;
  min-height: 60px;
  padding: 9px 0;
  font-size: 0.8438rem;
  font-weight: 400;
  color: var(--ink-2);
  text-decoration: none;
}

.rail a:focus-visible {
  outline-offset: -3px;
}

.rail a:hover {
  color: var(--ink);
}

.rail a.router-link-active {
  color: var(--ink);
  background: var(--paper-2);
  font-weight: 650;
  box-shadow: inset 3px 0 0 var(--act);
}

@media (max-width: 859px) {
  .rail {
    position: fixed;
    inset: auto 0 0;
    z-index: 5;
    height: auto;
    padding: 0 0 env(safe-area-inset-bottom);
    flex-direction: row;
    border: 0;
    border-top: 1px solid var(--line);
    background: var(--paper);
  }

  .site {
    display: none;
  }

  .rail a {
    flex: 1;
    min-height: 56px;
    padding: 5px 0;
    font-size: 0.8125rem;
  }

  .rail a.router-link-active {
    box-shadow: inset 0 3px 0 var(--act);
  }
}

@media print {
  .rail {
    display: none;
  }
}
</style>
