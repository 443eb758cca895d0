<script setup lang="ts">
import { computed } from 'vue'
import type { Probe } from '@/api/client'
import { useLogWords } from './useLogWords'

/** Probes, with what can be done to each. */
const { probes } = defineProps<{ probes: Probe[] }>()
const emit = defineEmits<{ end: [probe: Probe]; out: [probe: Probe] }>()
const { say, t } = useLogWords()

const rows = computed(() =>
  probes.map((probe) => ({
    probe,
    words: probe.is_ended
      ? t('probe.ended')
      : probe.seen_at
        ? t('probe.seen', { when: say.time(probe.seen_at) })
        : t('probe.silent'),
  })),
)
</script>

<template>
  <ul>
    <li v-for="{ probe, words } in rows" :key="probe.id">
      <p>
        <b>{{ probe.name }}</b>
        <template v-if="probe.is_simulated"
          >, <i>{{ t('probe.simulated') }}</i></template
        >
      </p>
      <p class="quiet small">{{ words }}</p>
      <p class="acts" data-deed="keep">
        <button
          v-if="!probe.is_ended"
          type="button"
          class="word-act"
          :aria-label="t('probe.endNamed', { name: probe.name })"
          @click="emit('end', probe)"
        >
          {{ t('probe.end') }}
        </button>
        <button
          type="button"
          class="word-act"
          :aria-label="t('probe.takeOutNamed', { name: probe.name })"
          @click="emit('out', probe)"
        >
          {{ t('probe.takeOut') }}
        </button>
      </p>
    </li>
  </ul>
</template>

<style scoped>
li {
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}

.acts {
  display: flex;
  gap: 18px;
}
</style>
