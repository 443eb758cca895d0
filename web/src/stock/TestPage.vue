<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import ActButton from '@/kit/ActButton.vue'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answered, api, type Readings, Refused } from '@/api/client'
import { WAITS } from '@/api/outbox/useOutbox'
import { key } from '@/api/keys'
import BeanTool from '@/stock/tools/BeanTool.vue'
import BucketTool from '@/stock/tools/BucketTool.vue'
import LabTool from '@/stock/tools/LabTool.vue'
import DryingTool from '@/stock/tools/DryingTool.vue'
import SqueezeTool from '@/stock/tools/SqueezeTool.vue'
import WeighTool from '@/stock/tools/WeighTool.vue'
import { isSound } from '@/kit/sound'
import StateNote from '@/kit/StateNote.vue'
import TestWorking from './TestWorking.vue'
import { useAbout } from '@/farm/useFarm'
import { useLot } from './useLot'
import { useSay } from '@/words/useSay'
import FormField from '@/kit/FormField.vue'
import { fieldAmong } from '@/kit/refusals'
import { useRefusals } from '@/kit/useRefusals'
import { useSlip } from '@/kit/useSlip'
import { useTestWords } from './useTestWords'

/** One small test, guided: how it is done, what was read, what it gives. */
const { id, kind, test } = defineProps<{ id: string; kind: string; test: string | null }>()

const TOOLS: Record<string, object> = {
  weigh: WeighTool,
  drying: DryingTool,
  squeeze: SqueezeTool,
  bucket: BucketTool,
  bean: BeanTool,
  lab: LabTool,
}

const say = useSay()
const { t } = say
const router = useRouter()
const slip = useSlip()
const words = useTestWords()
const { about } = useAbout()
const { lot, isGone, error, retry, tests, addTest, changeTest } = useLot(computed(() => id))

const readings = ref<Readings | null>(null)
const day = ref('')
/** What is read in the tools, by the names of the readings. */
const READ = ['litres', 'full_kg', 'empty_kg', 'water_l', 'dish_g', 'wet_g', 'dried_g', 'feel', 'made_on']
const SHEET = ['moisture_pct', 'samples', 'c_pct', 'n_pct']
const COUNTED = ['sown', 'up', 'deformed', 'control_sown', 'control_up', 'control_deformed', 'judged_on']
const { faults, tell, tried } = useRefusals('tool.stale', fieldAmong(...READ, ...SHEET, ...COUNTED))

/** A test that goes on is taken up where it was left. */
const before = computed(() => tests.value?.find((one) => one.id === test) ?? null)
watch(before, (found) => {
  if (found) day.value = found.made_on
})
watch(
  () => about.value?.today,
  (today) => {
    if (today && !day.value) day.value = today
  },
  { immediate: true },
)

const name = computed(() => (lot.value ? say.nameOf(lot.value.material, lot.value.label) : ''))
const isReady = computed(() => readings.value !== null && day.value !== '')

const asked = computed(() => ({ made_on: day.value, readings: readings.value }))
const { data: answer, error: refusal } = useQuery({
  queryKey: key('reckon', () => id, asked),
  queryFn: ({ signal }) =>
    answered(
      api.POST('/api/lots/{id}/tests/reckon', {
        params: { path: { id } },
        body: { made_on: day.value, readings: readings.value! },
        signal,
      }),
    ),
  enabled: isReady,
  placeholderData: keepPreviousData,
  staleTime: Infinity,
  gcTime: 60_000,
})

/** The last answer stays while the next is asked; none is shown for readings that are refused or incomplete. */
const shown = computed(() => (isReady.value && !refusal.value ? (answer.value ?? null) : null))
watch([isReady, refusal], () =>
  tell(isReady.value && refusal.value instanceof Refused ? refusal.value : null),
)

/** The farm cannot say now what follows; what was read is kept all the same. */
const isBlind = computed(() => isReady.value && !!refusal.value && !(refusal.value instanceof Refused))

const gives = computed(() => {
  if (!shown.value) return ''
  const { goes_on, gives: given } = shown.value
  if (goes_on) return t(`tool.${kind}.goesOn`)
  const named = given.filter((figure) => figure !== 'herbicide').map((figure) => t(`tool.figure.${figure}`))
  if (named.length) return t('tool.sets', { figures: named.join(', '), name: say.within(name.value) })
  return given.includes('herbicide') ? t('tool.bean.refuses') : t('tool.setsNothing')
})

async function save() {
  if (!readings.value) return
  const body = { made_on: day.value, readings: readings.value }
  await tried(async () => {
    const kept = before.value
      ? await changeTest.mutateAsync({ test: before.value, to: body })
      : await addTest.mutateAsync(body)
    if (kept !== WAITS)
      slip.said({ text: t('tool.saved', { test: t(`test.${kind}`), result: words.result(kept) }) })
    void router.push(`/stock/${id}`)
  })
}
</script>

<template>
  <StateNote v-if="!lot && !isGone" :error="error" @retry="retry" />
  <h1 v-else-if="!lot || !TOOLS[kind]">{{ t('lotPage.gone') }}</h1>
  <template v-else>
    <p class="crumb">
      <RouterLink to="/stock">{{ t('nav.stock') }}</RouterLink> ›
      <RouterLink :to="`/stock/${id}`">{{ name }}</RouterLink>
    </p>
    <header class="page-head">
      <div>
        <h1>{{ t(`test.${kind}`) }}</h1>
        <p>{{ t(`tool.${kind}.lead`) }}</p>
      </div>
    </header>
    <form
      class="tool"
      novalidate
      @submit.prevent="(event) => isSound(event.currentTarget as HTMLElement) && save()"
    >
      <component
        :is="TOOLS[kind]"
        v-if="test === null || before"
        :key="before?.id ?? 0"
        :lot="lot"
        :first="before?.readings ?? null"
        :answer="shown"
        :day="day"
        @update:readings="(now: Readings | null) => (readings = now)"
        @update:day="(now: string) => (day = now)"
      />
      <footer>
        <FormField id="test-day" field="made_on" :label="t(kind === 'bean' ? 'tool.sownOn' : 'tool.madeOn')">
          <input id="test-day" v-model="day" type="date" :max="about?.today" />
        </FormField>
        <div class="result" aria-live="polite">
          <template v-if="shown">
            <b>{{ words.ofAnswer(shown) }}</b>
            <span>{{ gives }}</span>
          </template>
          <span v-else-if="isBlind">{{ t('tool.blind') }}</span>
          <p v-else-if="faults.whole" class="fault">{{ faults.whole }}</p>
          <span v-else class="quiet">{{ t('tool.notYet') }}</span>
        </div>
        <div class="acts">
          <ActButton
            type="button"
            variant="outlined"
            :label="t('app.cancel')"
            @click="router.push(`/stock/${id}`)"
          />
          <ActButton
            type="submit"
            :label="t('tool.save')"
            :disabled="!shown && !isBlind"
            :loading="addTest.isPending.value || changeTest.isPending.value"
          />
        </div>
      </footer>
      <TestWorking v-if="shown?.working.length" :lines="shown.working" />
    </form>
  </template>
</template>

<style scoped>
.crumb {
  margin-bottom: 4px;
}

.tool {
  margin-top: 14px;
}

footer {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 24px;
  align-items: end;
  padding-top: 12px;
  border-top: 1.5px solid var(--ink);
}

.result b {
  display: block;
  font-size: 1.375rem;
  line-height: 1.2;
}

@media (max-width: 859px) {
  footer {
    grid-template-columns: minmax(0, 1fr);
    gap: 14px;
  }
}
</style>
