<script setup lang="ts">
import { useMutation, useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answered, api } from '@/api/client'
import { key, useChanged } from '@/api/keys'
import ActButton from '@/kit/ActButton.vue'
import { useAttempt } from '@/kit/useAttempt'
import { useSay } from '@/words/useSay'

/** The tasks on a phone's own calendar: as a file, or from an address of one's own that it fetches by itself. */
const { site } = defineProps<{ site: string }>()
const { t, day } = useSay()
const path = computed(() => ({ params: { path: { id: site } } }))
const { attempt } = useAttempt()
const refresh = useChanged('calendar')

const { data: told } = useQuery({
  queryKey: key(
    'calendar',
    computed(() => site),
  ),
  queryFn: ({ signal }) => answered(api.GET('/api/sites/{id}/calendar', { ...path.value, signal })),
})
const make = useMutation({
  mutationFn: () => answered(api.POST('/api/sites/{id}/calendar', path.value)),
  onSettled: refresh,
})
const end = useMutation({
  mutationFn: () => answered(api.DELETE('/api/sites/{id}/calendar', path.value)),
  onSettled: refresh,
})

const address = ref('')
const isCopied = ref(false)
async function makeOne() {
  isCopied.value = false
  await attempt(async () => {
    address.value = new URL(`${(await make.mutateAsync()).path}.ics`, location.origin).href
  })
}
async function endIt() {
  await attempt(() => end.mutateAsync())
  address.value = ''
}
async function copy() {
  try {
    await navigator.clipboard.writeText(address.value)
    isCopied.value = true
  } catch {
    // It stands there to be copied by hand.
  }
}
</script>

<template>
  <details>
    <summary>{{ t('today.calendar') }}</summary>
    <p>{{ t('today.calendarHint') }}</p>
    <p v-if="address" class="made" role="status">
      {{ t('today.calendarMade') }}
      <input :value="address" readonly :aria-label="t('today.calendarMade')" class="full" />
      <button type="button" class="word-act" @click="copy">
        {{ t(isCopied ? 'today.copied' : 'today.copy') }}
      </button>
    </p>
    <p v-else-if="told?.made_at" class="quiet">
      {{ t('today.calendarHas', { day: day(told.made_at.slice(0, 10)) }) }}
    </p>
    <div class="row">
      <ActButton
        variant="outlined"
        :label="t(told?.made_at ? 'today.calendarAnew' : 'today.calendarMake')"
        :loading="make.isPending.value"
        @click="makeOne"
      />
      <button v-if="told?.made_at" type="button" class="word-act" @click="endIt">
        {{ t('today.calendarEnd') }}
      </button>
      <a :href="`/api/sites/${site}/tasks.ics`" download="tasks.ics" class="row-link">{{
        t('today.calendarFile')
      }}</a>
    </div>
  </details>
</template>

<style scoped>
details {
  max-width: 760px;
  margin-top: 26px;
  border-top: 1.5px solid var(--ink);
}

summary {
  padding: 11px 0;
  font-weight: 640;
  cursor: pointer;
}

.made {
  margin-top: 8px;
}

.full {
  display: block;
  width: 100%;
  min-height: 44px;
  margin-top: 6px;
  padding: 6px 10px;
  border: 1px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--sheet);
  color: inherit;
  font: inherit;
}

.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 20px;
  align-items: center;
  margin-top: 10px;
}

.row-link {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
</style>
