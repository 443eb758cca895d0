<script setup lang="ts">
import { type RouteLocationRaw, RouterLink } from 'vue-router'

/**
 * A button that does something, or a way to another page that looks like one. Plain, since every page
 * is made of them and a slow phone has to draw them all.
 */
const {
  label,
  to,
  variant = 'filled',
  loading = false,
  disabled = false,
} = defineProps<{
  label: string
  /** Where it leads, if it is a way and no act. */
  to?: RouteLocationRaw
  variant?: 'filled' | 'outlined' | 'text'
  /** What it does is under way. */
  loading?: boolean
  disabled?: boolean
  /** As wide as there is room. */
  fluid?: boolean
}>()
</script>

<template>
  <RouterLink v-if="to" :to="to" class="act-button" :class="[variant, { fluid }]">{{ label }}</RouterLink>
  <button
    v-else
    type="button"
    class="act-button"
    :class="[variant, { fluid }]"
    :disabled="disabled || loading"
    :aria-busy="loading || undefined"
  >
    {{ label }}
  </button>
</template>

<style scoped>
.act-button {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  min-height: 44px;
  padding: 10px 12px;
  border: 1px solid var(--act);
  border-radius: var(--radius);
  background: var(--act);
  color: var(--on-act);
  font: inherit;
  font-weight: 500;
  text-decoration: none;
  cursor: pointer;
  user-select: none;
}

.act-button:not(:disabled):hover {
  border-color: var(--act-strong);
  background: var(--act-strong);
}

.act-button:disabled {
  opacity: 0.6;
  cursor: default;
}

.outlined,
.text {
  background: transparent;
  color: var(--act);
}

.text {
  border-color: transparent;
}

.outlined:not(:disabled):hover,
.text:not(:disabled):hover {
  border-color: var(--act);
  background: var(--tint);
}

.text:not(:disabled):hover {
  border-color: transparent;
}

.fluid {
  width: 100%;
}
</style>
