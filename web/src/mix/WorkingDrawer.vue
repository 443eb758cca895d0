<script setup lang="ts">
import '@/theme/controls'
import { useQuery } from '@tanstack/vue-query'
import Select from 'primevue/select'
import { computed } from 'vue'
import { answered, api, type Recipe } from '@/api/client'
import { key } from '@/api/keys'
import SideDrawer from '@/kit/SideDrawer.vue'
import StateNote from '@/kit/StateNote.vue'
import SureBoard from './SureBoard.vue'
import WorkingBoard from './WorkingBoard.vue'
import { useSay } from '@/words/useSay'
import { useUnits } from '@/words/useUnits'

/** The sum behind a figure, as a trainer would write it on a board; or how sure all of them are. */
const { recipe, names } = defineProps<{ recipe: Recipe; names: string[] }>()
const figure = defineModel<string | null>({ required: true })

const say = useSay()
const { t } = say
const units = useUnits()

const SURE = 'confidence'
const isOpen = computed({
  get: () => figure.value !== null,
  set: (open) => {
    if (!open) figure.value = null
  },
})

const board = useQuery({
  queryKey: key('working', () => recipe),
  queryFn: ({ signal }) => answered(api.POST('/api/working', { body: recipe, signal })),
  enabled: isOpen,
})
const sure = useQuery({
  queryKey: key('confidence', () => recipe),
  queryFn: ({ signal }) => answered(api.POST('/api/confidence', { body: recipe, signal })),
  enabled: computed(() => figure.value === SURE),
})

const choices = computed(() =>
  [...(board.data.value?.workings ?? []).map((one) => one.figure), SURE].map((value) => ({
    value,
    label: t(`working.figure.${value}`),
  })),
)
const working = computed(() => board.data.value?.workings.find((one) => one.figure === figure.value))
const isReady = computed(() =>
  figure.value === SURE ? sure.data.value !== undefined : working.value !== undefined,
)
const error = computed(() => board.error.value ?? sure.error.value)
const retry = () => Promise.all([board.refetch(), figure.value === SURE && sure.refetch()])
</script>

<template>
  <SideDrawer v-model:open="isOpen" :title="t('working.title')">
    <StateNote v-if="!isReady" :error="error" @retry="retry" />
    <div v-else class="board">
      <RouterLink v-if="figure !== SURE" to="/wall/working" class="to-wall">{{ t('bench.wall') }}</RouterLink>
      <Select
        v-model="figure"
        :options="choices"
        option-label="label"
        option-value="value"
        :aria-label="t('working.title')"
        scroll-height="420px"
      />
      <p class="quiet">{{ t(`working.note.${figure}`) }}</p>
      <p v-if="units.system.value === 'us'" class="quiet small">{{ t('working.metric') }}</p>
      <SureBoard v-if="figure === SURE && sure.data.value" :sure="sure.data.value" :names="names" />
      <WorkingBoard v-else-if="working" :lines="working.lines" :names="names" :items="recipe.items" />
    </div>
  </SideDrawer>
</template>

<style scoped>
.board {
  display: flex;
  flex-direction: column;
  gap: 18px;
  font-size: 1.0625rem;
}
</style>
