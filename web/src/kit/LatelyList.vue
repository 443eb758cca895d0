<script setup lang="ts">
import { computed } from 'vue'
import { useSay } from '@/words/useSay'
import { type Removable, useLately } from './lately'
import { useAttempt } from './useAttempt'

/** What was removed lately, each with its undo, long after the slip is gone. */
const { of } = defineProps<{
  /** Only these; everything if none are named. */
  of?: Removable[]
}>()

const { t, time } = useSay()
const lately = useLately()
const { attempt } = useAttempt()

const shown = computed(() => lately.removed.filter(({ what }) => !of || of.includes(what)))
</script>

<template>
  <p v-if="!of && !shown.length" class="quiet">{{ t('lately.none') }}</p>
  <component :is="of ? 'details' : 'div'" v-if="shown.length" class="lately">
    <summary v-if="of">{{ t('lately.some', shown.length) }}</summary>
    <ul class="ruled-list">
      <li v-for="one in shown" :key="one.what + one.id">
        <span>
          {{ one.text }} <small class="quiet">{{ time(one.at) }}</small>
        </span>
        <button
          type="button"
          class="word-act"
          :aria-label="t('lately.undoNamed', { what: one.text })"
          @click="attempt(() => lately.restore(one))"
        >
          {{ t('app.undo') }}
        </button>
      </li>
    </ul>
  </component>
</template>

<style scoped>
.lately {
  margin-top: 18px;
}

summary {
  min-height: 44px;
  padding-block: 10px;
  color: var(--ink-2);
  cursor: pointer;
}

li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 16px;
  min-height: 52px;
}

li span {
  min-width: 0;
  overflow-wrap: anywhere;
}

small {
  display: block;
  font-size: 0.875rem;
}
</style>
