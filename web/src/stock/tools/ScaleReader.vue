<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { onBeforeUnmount, ref } from 'vue'
import { answered, api } from '@/api/client'
import { useLimits } from '@/api/useLimits'
import NumberField from '@/kit/NumberField.vue'
import { useAttempt } from '@/kit/useAttempt'
import { useSay } from '@/words/useSay'

/**
 * Reads the simulated hanging scale. What hangs on it is made up here; it
 * swings, settles, and is read as a real one would be.
 */
const { suggest } = defineProps<{
  /** A likely weight, to begin with [kg]. */
  suggest: number
}>()
const emit = defineEmits<{ read: [kg: number] }>()

const say = useSay()
const limits = useLimits()
const { t } = say
const { attempt } = useAttempt()

const isOpen = ref(false)
const load = ref<number | null>(Math.round(suggest * 100) / 100)
const shown = ref<{ kg: number; isSteady: boolean } | null>(null)
let timer: ReturnType<typeof setInterval> | undefined

async function hang() {
  clearInterval(timer)
  await attempt(() => answered(api.PUT('/api/simulated/scale', { body: { kg: load.value ?? 0 } })))
  await look()
  timer = setInterval(() => void look(), 250)
}

async function look() {
  await attempt(async () => {
    const pack = await answered(api.GET('/api/simulated/scale'))
    const record = (name: string) => pack.find((one) => one.n === name)
    shown.value = { kg: record('weight')?.v ?? 0, isSteady: record('steady')?.vb ?? false }
    if (shown.value.isSteady) clearInterval(timer)
  })
}

function take() {
  if (!shown.value) return
  emit('read', shown.value.kg)
  isOpen.value = false
  clearInterval(timer)
}

onBeforeUnmount(() => clearInterval(timer))
</script>

<template>
  <div>
    <button type="button" class="word-act" :aria-expanded="isOpen" @click="isOpen = !isOpen">
      {{ t('scale.open') }}
    </button>
    <div v-if="isOpen" class="scale">
      <p class="small quiet">{{ t('scale.hint') }}</p>
      <div class="row">
        <div class="field">
          <label for="scale-load">{{ t('scale.load', { unit: say.sign('mass') }) }}</label>
          <NumberField id="scale-load" v-model="load" v-bind="limits.of('weight_kg')" quantity="mass" />
        </div>
        <ActButton type="button" variant="outlined" :label="t('scale.hang')" @click="hang" />
        <output aria-live="polite">
          <b>{{ shown ? say.of(shown.kg, 'mass') : '—' }}</b>
          <span class="small quiet">{{
            shown ? t(shown.isSteady ? 'scale.steady' : 'scale.swings') : t('scale.name')
          }}</span>
        </output>
        <ActButton type="button" :label="t('scale.take')" :disabled="!shown?.isSteady" @click="take" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.scale {
  padding: 12px 14px;
  background: var(--paper-2);
}

.row {
  display: flex;
  flex-wrap: wrap;
  gap: 12px 16px;
  align-items: flex-end;
  margin-top: 8px;
}

.row :deep(input) {
  width: 110px;
}

output {
  min-width: 100px;
  line-height: 1.2;
}

output b {
  display: block;
  font-size: 1.375rem;
}
</style>
