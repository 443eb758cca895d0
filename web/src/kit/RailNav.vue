<script setup lang="ts">
import { watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute } from 'vue-router'
import SiteSwitch from '@/farm/SiteSwitch.vue'
import { useAbout, useSite } from '@/farm/useFarm'
import { type Place, PLACES } from '@/mix/places'

const { t } = useI18n()
const { site, open } = useSite()
const { about } = useAbout()

const route = useRoute()
/** What lies under a place belongs to it. */
const isHere = ({ to, also = [] }: Place) =>
  [to, ...also].some((start) => route.path === start || route.path.startsWith(`${start}/`))

// The site shown is the one remembered, even when it was only fallen back on.
watch(site, (now) => now && open(now.id), { immediate: true })
</script>

<template>
  <nav class="rail" :aria-label="t('nav.label')">
    <div class="site">
      <SiteSwitch id="rail-site" /><span v-if="about?.demo" class="demo">{{ t('app.demo') }}</span>
    </div>
    <RouterLink
      v-for="place in PLACES"
      :key="place.name"
      :to="place.to"
      :class="{ wide: place.isWide, narrow: place.isNarrow, here: isHere(place) }"
    >
      <svg width="26" height="26" viewBox="0 0 26 26" aria-hidden="true">
        <path :d="place.path" class="hatch-line" />
      </svg>
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
  overflow-y: auto;
  scrollbar-width: thin;
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
  flex: 0 1 66px;
  justify-content: center;
  min-height: 50px;
  padding: 2px 6px;
  font-size: 0.8438rem;
  line-height: 1.15;
  text-align: center;
  font-weight: 400;
  color: var(--ink-2);
  text-decoration: none;
}

.rail svg {
  flex: none;
}

.rail a:focus-visible {
  outline-offset: -3px;
}

.rail a:hover {
  color: var(--ink);
}

.rail a.here {
  color: var(--ink);
  background: var(--paper-2);
  font-weight: 650;
  box-shadow: inset 3px 0 0 var(--act);
}

.rail a.narrow {
  display: none;
}

/* On a low screen the signs give way before the words do. */
@media (max-height: 850px) and (min-width: 860px) {
  .rail a {
    min-height: 45px;
    gap: 0;
    line-height: 1.05;
  }

  .rail svg {
    width: 22px;
    height: 22px;
  }
}

@media (max-width: 859px) {
  .rail a.narrow {
    display: flex;
  }

  .rail a.wide {
    display: none;
  }

  .rail {
    position: fixed;
    inset: auto 0 0;
    z-index: 5;
    height: auto;
    overflow: visible;
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
    flex: 1 1 0;
    min-height: 56px;
    padding: 5px 0;
    font-size: 0.8125rem;
  }

  .rail a.here {
    box-shadow: inset 0 3px 0 var(--act);
  }
}

@media print {
  .rail {
    display: none;
  }
}
</style>
