<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import TextInput from '@/kit/TextInput.vue'

/** A passphrase: hidden, or shown to whoever wants to see what they type; of a new one, how many letters lack. */
const { isNew = false } = defineProps<{
  id: string
  invalid?: boolean
  described?: string
  isNew?: boolean
}>()
const text = defineModel<string>({ required: true })
const { t } = useI18n()

const SHORTEST = 12
const LONGEST = 128
const isShown = ref(false)
const lacks = computed(() => Math.max(0, SHORTEST - [...text.value].length))
</script>

<template>
  <div class="line">
    <TextInput
      :id="id"
      v-model="text"
      fluid
      :type="isShown ? 'text' : 'password'"
      :maxlength="LONGEST"
      :invalid="invalid"
      :aria-describedby="described"
      :autocomplete="isNew ? 'new-password' : 'current-password'"
      autocapitalize="none"
      spellcheck="false"
    />
    <button
      type="button"
      class="word-act"
      :aria-pressed="isShown"
      :aria-controls="id"
      @click="isShown = !isShown"
    >
      {{ t(isShown ? 'people.hide' : 'people.show') }}
    </button>
  </div>
  <div v-if="isNew" class="meter" aria-live="polite">
    <meter :max="SHORTEST" :value="SHORTEST - lacks" :aria-label="t('people.letters')"></meter>
    <span class="quiet small">{{ lacks ? t('people.lettersLack', lacks) : t('people.longEnough') }}</span>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  gap: 12px;
  align-items: center;
}

.meter {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-top: 6px;
}

meter {
  width: 120px;
  height: 8px;
  border: 1px solid var(--ink-2);
  background: var(--sheet);
}

meter::-webkit-meter-bar {
  border: 0;
  background: var(--sheet);
}

meter::-webkit-meter-optimum-value,
meter::-moz-meter-bar {
  background: var(--act);
}
</style>
