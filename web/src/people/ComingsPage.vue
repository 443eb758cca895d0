<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { answered, api, type SecurityEntry } from '@/api/client'
import { key } from '@/api/keys'
import StateNote from '@/kit/StateNote.vue'
import { useSay } from '@/words/useSay'

/** What was noted of comings and goings, newest on top. */
const say = useSay()
const { t } = say
const {
  data: entries,
  error,
  refetch,
} = useQuery({
  queryKey: key('comings'),
  queryFn: ({ signal }) => answered(api.GET('/api/security', { signal })),
})

function what({ kind, who, about }: SecurityEntry): string {
  const names = { who: who ?? t('people.somebody'), about: about ?? t('people.somebody') }
  return t(`comings.${kind}`, names)
}
const where = ({ device, address }: SecurityEntry) =>
  [device, address || t('people.theMachine')].filter(Boolean).join(', ')
</script>

<template>
  <h1>{{ t('people.comings') }}</h1>
  <p class="quiet">{{ t('people.comingsHint') }}</p>
  <StateNote v-if="error || !entries" :error="error" @retry="refetch" />
  <ol v-else class="ruled-list">
    <li v-for="(entry, at) in entries" :key="at">
      <span class="quiet when">{{ say.time(entry.at) }}</span>
      <span class="what">{{ what(entry) }}</span>
      <span class="quiet small">{{ where(entry) }}</span>
    </li>
  </ol>
</template>

<style scoped>
ol {
  max-width: 820px;
  padding: 0;
  list-style: none;
}

li {
  display: grid;
  grid-template-columns: 11em 1fr auto;
  gap: 2px 16px;
  align-items: baseline;
  padding: 9px 0;
  border-bottom: 1px solid var(--line);
}

@media (max-width: 640px) {
  li {
    grid-template-columns: 1fr;
  }
}
</style>
