<script setup lang="ts">
import '@/theme/controls'
import Toast from 'primevue/toast'
import { useToast } from 'primevue/usetoast'
import { onMounted } from 'vue'
import { isDrawn, type Slip } from './useSlip'

const toast = useToast()
onMounted(() => (isDrawn.value = true))

function undo(slip: Slip) {
  toast.removeAllGroups()
  slip.undo?.()
}
</script>

<template>
  <Toast position="bottom-center">
    <template #message="{ message }">
      <span class="text">{{ message.summary }}</span>
      <button v-if="message.detail?.undo" type="button" class="undo" @click="undo(message.detail)">
        {{ message.detail.undoLabel }}
      </button>
    </template>
  </Toast>
</template>

<style scoped>
.text {
  flex: 1;
  align-self: center;
}

.undo {
  min-height: 44px;
  padding: 0 14px;
  border: 1px solid currentcolor;
  border-radius: var(--radius);
  background: none;
  font-weight: 640;
  cursor: pointer;
}

.undo:focus-visible {
  outline-color: var(--paper);
}
</style>
