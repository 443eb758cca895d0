<script setup lang="ts">
import { useId } from 'vue'
import { useSay } from '@/words/useSay'

/** A figure that a room guesses: what it says, and what is so, hidden until it is told. */
const { truth, unit, isTold } = defineProps<{
  truth: string
  unit: string
  isTold: boolean
}>()
const guess = defineModel<number | null>('guess', { required: true })
const { t } = useSay()
const id = useId()
const by = (step: number) => (guess.value = Math.max(0, (guess.value ?? 0) + step))
</script>

<template>
  <div class="guess">
    <div>
      <label :for="id">{{ t('wall.roomSays') }}</label>
      <span class="say">
        <button type="button" :aria-label="t('wall.less')" @click="by(-1)">−</button>
        <input
          :id="id"
          class="figure"
          inputmode="numeric"
          :value="guess ?? ''"
          maxlength="4"
          placeholder="–"
          @input="
            (event) => {
              const typed = Number((event.target as HTMLInputElement).value.replace(',', '.'))
              guess = Number.isFinite(typed) && typed > 0 ? typed : null
            }
          "
        />
        <button type="button" :aria-label="t('wall.more')" @click="by(1)">+</button>
      </span>
    </div>
    <div>
      <p>{{ t('wall.itGives') }}</p>
      <p class="figure truth" :class="{ hidden: !isTold }" aria-live="polite">
        <template v-if="isTold"
          >{{ truth }}<small>{{ unit }}</small></template
        >
        <template v-else>?</template>
      </p>
    </div>
  </div>
</template>

<style scoped>
.guess {
  display: flex;
  flex-wrap: wrap;
  gap: 16px 48px;
}

label,
p:not(.figure) {
  display: block;
  color: var(--ink-2);
}

.say {
  display: flex;
  gap: 10px;
  align-items: center;
}

/* Forty points at least, to be read from the last row. */
.figure {
  font-size: max(53.4px, 5.4vw);
  font-weight: 680;
  line-height: 1.1;
}

input {
  width: 3.2ch;
  padding: 0 0.1em;
  border: 0;
  border-bottom: 3px solid var(--line);
  border-radius: 0;
  background: none;
  color: var(--ink-2);
  text-align: center;
}

button {
  width: 56px;
  height: 56px;
  border: 1.5px solid var(--ink-2);
  border-radius: var(--radius);
  background: none;
  font-size: 1.75rem;
  cursor: pointer;
}

.truth {
  display: inline-block;
  min-width: 3.6ch;
  margin-top: 6px;
  padding: 0.1em 0.2em;
  border: 4px solid transparent;
  text-align: center;
}

.truth small {
  margin-inline-start: 0.15em;
  font-size: 0.45em;
}

.hidden {
  border: 4px dashed var(--ink);
  color: var(--ink-2);
}
</style>
