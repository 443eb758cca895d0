<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Probe } from '@/api/client'
import { useLogWords } from './useLogWords'
import ProbeDialog from './ProbeDialog.vue'
import RodDialog from './RodDialog.vue'
import { useProbes } from './useProbes'

/** The probes of a heap, a logger's file, and stand-ins to try it with. */
const { id, probes } = defineProps<{ id: string; probes: Probe[] }>()
const { say, t } = useLogWords()
const { end, takeOut } = useProbes(() => id)

const isAdding = ref(false)
const isPlaying = ref(false)
const rows = computed(() =>
  probes.map((probe) => ({
    probe,
    words: probe.seen_at ? t('probe.seen', { when: say.time(probe.seen_at) }) : t('probe.silent'),
  })),
)
</script>

<template>
  <section :aria-label="t('probe.title')">
    <h2 class="ruled">{{ t('probe.title') }}</h2>
    <ul v-if="rows.length">
      <li v-for="{ probe, words } in rows" :key="probe.id">
        <p>
          <b>{{ probe.name }}</b>
          <span v-if="probe.is_simulated" class="simulated">{{ t('probe.simulated') }}</span>
        </p>
        <p class="quiet small">{{ probe.is_ended ? t('probe.ended') : words }}</p>
        <p class="acts" data-deed="keep">
          <button
            v-if="!probe.is_ended"
            type="button"
            class="word-act"
            :aria-label="t('probe.endNamed', { name: probe.name })"
            @click="end(probe)"
          >
            {{ t('probe.end') }}
          </button>
          <button
            type="button"
            class="word-act"
            :aria-label="t('probe.takeOutNamed', { name: probe.name })"
            @click="takeOut(probe)"
          >
            {{ t('probe.takeOut') }}
          </button>
        </p>
      </li>
    </ul>
    <p v-else class="quiet">{{ t('probe.none') }}</p>
    <p class="ways">
      <RouterLink :to="`/heaps/${id}/import`" data-deed="work">{{ t('import.open') }}</RouterLink>
      <button type="button" class="word-act" data-deed="keep" @click="isAdding = true">
        {{ t('probe.add') }}
      </button>
      <button type="button" class="word-act" data-deed="keep" @click="isPlaying = true">
        {{ t('probe.play') }}
      </button>
    </p>
    <ProbeDialog :id="id" v-model:open="isAdding" />
    <RodDialog :id="id" v-model:open="isPlaying" />
  </section>
</template>

<style scoped>
li {
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}

.simulated {
  font-style: italic;
}

.acts {
  display: flex;
  gap: 18px;
}

.ways {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
}

.ways a {
  display: flex;
  align-items: center;
  min-height: 44px;
}
</style>
