<script setup lang="ts">
import { computed } from 'vue'
import type { ActKind } from '@/api/outbox/kinds'
import { useOutbox } from '@/api/outbox/useOutbox'
import { useSay } from '@/words/useSay'

/** What was done here, of some kinds and to one thing if it is named, and is not with the farm yet. */
const { kinds, of } = defineProps<{ kinds: ActKind[]; of?: string }>()
const { t } = useSay()
const outbox = useOutbox()
const acts = computed(() =>
  outbox.waiting.filter(
    (act) => kinds.includes(act.kind) && outbox.isMine(act) && (of === undefined || act.of === of),
  ),
)
</script>

<template>
  <ul v-if="acts.length" class="here" :aria-label="t('waits.notThere')">
    <li v-for="act in acts" :key="act.id">
      {{ t(`waits.kind.${act.kind}`, { what: act.says }) }}
      <span class="quiet small">{{ t(act.trouble ? 'waits.needsWord' : 'waits.signal') }}</span>
    </li>
  </ul>
</template>

<style scoped>
.here {
  margin: 10px 0;
  padding: 4px 12px;
  border-inline-start: 3px solid var(--line);
  background: var(--tint);
}

li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  justify-content: space-between;
  align-items: baseline;
  padding: 6px 0;
}
</style>
