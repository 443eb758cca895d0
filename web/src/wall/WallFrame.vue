<script setup lang="ts">
import { onBeforeUnmount, onMounted } from 'vue'
import { useI18n } from 'vue-i18n'

/** What a room looks at: one question large, what leads to its answer, and how to go on. */
const { over, title, at, total } = defineProps<{
  over: string
  title: string
  /** The step, from 0, and how many there are. */
  at: number
  total: number
}>()
const emit = defineEmits<{ next: []; back: []; leave: [] }>()
const { t } = useI18n()

// The whole screen where somebody tapped their way here; a browser gives it to nobody else.
onMounted(() => {
  if (!navigator.userActivation?.isActive) return
  void document.documentElement.requestFullscreen?.().catch(() => undefined)
})
onBeforeUnmount(() => {
  if (document.fullscreenElement) void document.exitFullscreen().catch(() => undefined)
})
</script>

<template>
  <div class="wall">
    <header aria-live="polite">
      <p>{{ over }}</p>
      <h1>{{ title }}</h1>
    </header>
    <div class="body"><slot /></div>
    <footer>
      <span>
        <button type="button" :disabled="at === 0" @click="emit('back')">← {{ t('wall.back') }}</button>
        <button type="button" :disabled="at >= total - 1" @click="emit('next')">
          {{ t('wall.next') }} →
        </button>
        <button type="button" @click="emit('leave')">{{ t('wall.leave') }}</button>
      </span>
      <span>{{ t('wall.step', { n: at + 1, of: total }) }}</span>
    </footer>
  </div>
</template>

<style scoped>
.wall {
  display: flex;
  flex-direction: column;
  min-height: calc(100dvh - 36px);
  font-size: clamp(1.25rem, 2.3vw, 2.6rem);
  line-height: 1.3;
}

header p {
  color: var(--ink-2);
}

h1 {
  font-size: clamp(2rem, 4.4vw, 5rem);
  line-height: 1.1;
}

.body {
  flex: 1;
  margin-top: 24px;
}

footer {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 8px 28px;
  margin-top: 20px;
  font-size: clamp(1rem, 1.6vw, 1.75rem);
  color: var(--ink-2);
}

button {
  min-height: 48px;
  margin-inline-end: 28px;
  padding: 0;
  border: 0;
  background: none;
  font: inherit;
  color: var(--act);
  cursor: pointer;
}

button:disabled {
  color: var(--ink-2);
  opacity: 0.5;
  cursor: default;
}
</style>
