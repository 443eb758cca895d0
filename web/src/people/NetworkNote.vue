<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { answered, api } from '@/api/client'
import { key } from '@/api/keys'
import { useSay } from '@/words/useSay'
import QrPicture from './QrPicture.vue'

/** Where phones find this farm, for their cameras; or how they come to find it at all. */
const { t } = useSay()
const { data: network } = useQuery({
  queryKey: key('network'),
  queryFn: ({ signal }) => answered(api.GET('/api/network', { signal })),
})
</script>

<template>
  <section v-if="network" :aria-label="t('people.onPhones')">
    <header class="ruled">
      <h2>{{ t('people.onPhones') }}</h2>
    </header>
    <p v-if="!network.at">{{ t('people.notOnNetwork') }}</p>
    <template v-else>
      <p>
        {{ t('people.foundAt') }} <b>{{ network.at.link }}</b>
      </p>
      <details v-if="network.trust">
        <summary>{{ t('people.firstTime') }}</summary>
        <p class="quiet">{{ t('people.firstTimeHow') }}</p>
        <QrPicture :rows="network.trust.qr.rows" :label="t('people.qr', { link: network.trust.link })" />
        <p>{{ network.trust.link }}</p>
      </details>
      <details>
        <summary>{{ t('people.addressPicture') }}</summary>
        <QrPicture :rows="network.at.qr.rows" :label="t('people.qr', { link: network.at.link })" />
      </details>
    </template>
  </section>
</template>

<style scoped>
section {
  max-width: 820px;
  margin-bottom: 34px;
}

summary {
  display: list-item;
  min-height: 44px;
  padding-top: 10px;
  font-weight: 600;
  cursor: pointer;
}

b {
  overflow-wrap: anywhere;
}
</style>
