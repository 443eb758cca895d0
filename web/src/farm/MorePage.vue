<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import SiteSwitch from './SiteSwitch.vue'
import { useAbout } from './useFarm'
import { PLACES } from '@/mix/places'

const { t } = useI18n()
const { about } = useAbout()
const places = PLACES.filter((place) => place.isWide)
</script>

<template>
  <h1>{{ t('nav.more') }}</h1>
  <p class="site">
    <label for="more-site">{{ t('sites.open') }}</label>
    <SiteSwitch id="more-site" />
    <span v-if="about?.demo" class="quiet small demo">{{ t('app.demo') }}</span>
  </p>
  <ul class="ruled-list">
    <li v-for="place in places" :key="place.name">
      <RouterLink :to="place.to">
        <svg width="26" height="26" aria-hidden="true"><path :d="place.path" class="hatch-line" /></svg>
        {{ t(`nav.${place.name}`) }}
      </RouterLink>
    </li>
    <li>
      <RouterLink to="/waiting">
        <svg width="26" height="26" aria-hidden="true">
          <path d="M3 5h20v16H3zM3 5l10 9 10-9" class="hatch-line" />
        </svg>
        {{ t('waits.see') }}
      </RouterLink>
    </li>
  </ul>
</template>

<style scoped>
.site {
  margin: 14px 0 20px;
}

label {
  display: block;
  font-weight: 600;
}

.demo {
  display: block;
}

.ruled-list a {
  display: flex;
  gap: 14px;
  align-items: center;
  min-height: 56px;
  color: var(--ink);
  text-decoration: none;
}
</style>
