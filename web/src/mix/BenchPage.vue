<script setup lang="ts">
import Button from 'primevue/button'
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import BalanceField from './BalanceField.vue'
import BenchActs from './BenchActs.vue'
import BenchAmounts from './BenchAmounts.vue'
import CorrectDrawer from './CorrectDrawer.vue'
import FigureBar from './FigureBar.vue'
import FigureNews from './FigureNews.vue'
import HeapSection from '@/plan/HeapSection.vue'
import MixCautions from './MixCautions.vue'
import SentenceField from '@/stock/SentenceField.vue'
import SaveDialog from '@/plan/SaveDialog.vue'
import StateNote from '@/kit/StateNote.vue'
import StockChoices from '@/plan/StockChoices.vue'
import StockPicker from './StockPicker.vue'
import SureNote from './SureNote.vue'
import WorkingDrawer from './WorkingDrawer.vue'
import type { BatchPart, Lot } from '@/api/client'
import { stepOf, useBench } from './useBench'
import { useMaterials } from '@/farm/useFarm'
import { useField } from './useField'
import { useFigures } from './useFigures'
import { useSay } from '@/words/useSay'
import { useSlip } from '@/kit/useSlip'
import { useVerdict } from './useVerdict'
import { useWidth } from '@/kit/useWidth'
import { windowsOf } from './field'
import { useDraft } from './draft'

const say = useSay()
const { t } = say
const store = useDraft()
const router = useRouter()
const slip = useSlip()
const { hatchOf } = useMaterials()
const { answer, error, retry, request, stepLots, waiting, lots, measures } = useBench()
const { headline, reason } = useVerdict(answer, stepLots)

const selected = ref<number | null>(null)
const picking = ref(false)
const mending = ref(false)
const naming = ref(false)
/** What was not understood is still asked when something is on the bench. */
const asking = ref(false)
const working = ref<string | null>(null)
const save = useTemplateRef<InstanceType<typeof SaveDialog>>('save')

const fieldBox = useTemplateRef<HTMLElement>('fieldBox')
const sectionBox = useTemplateRef<HTMLElement>('sectionBox')
const fieldWidth = useWidth(fieldBox, 420)
const sectionWidth = useWidth(sectionBox, 236)
const drawHeight = computed(() => (fieldWidth.value < 390 ? fieldWidth.value + 20 : 408))

const mix = computed(() => answer.value?.mix ?? null)
const names = computed(() => store.draft.items.map((part) => say.nameOf(part.material, part.label)))
const hatches = computed(() => store.draft.items.map((part) => hatchOf(part.material)))

const isEmpty = computed(() => store.draft.items.length === 0)

const field = useField(answer, lots, selected)
const fieldLots = field.marks

const figures = useFigures(answer)

/** Sayings that the verdict and the figures do not hold yet. */
const remarks = computed(() =>
  (mix.value?.findings ?? [])
    .filter((found) => ['carbon-implausible'].includes(found.code))
    .map((found) => say.finding(found, names.value)),
)

const status = computed(() => {
  const saved = store.draft.saved
  if (!saved) return store.draft.items.length ? t('bench.unsaved') : ''
  return t(store.isChanged ? 'bench.changed' : 'bench.same', { name: saved.name })
})

function put(lot: Lot) {
  // Half of what is there is a fair first guess, and never nothing.
  const step = stepOf(lot)
  const half = Math.max(step, Math.floor(lot.amount / 2 / step) * step)
  store.put(lot, measures.value ?? [], Math.min(half, Math.max(lot.amount, step)))
  selected.value = store.draft.items.length - 1
  picking.value = false
}

/** What was said goes on the bench at once, be it in stock or not. */
function sayOn(parts: BatchPart[], water_l: number) {
  store.say(parts, water_l)
  slip.said({ text: t('say.added', parts.length), undoLabel: t('app.undo'), undo: store.undo })
}

/** A mark chosen in the field: its row on the bench, or a lot put on an empty one. */
function select(index: number) {
  const at = fieldLots.value[index]?.key
  const lot = isEmpty.value && at !== undefined ? lots.value?.[at] : undefined
  if (lot) put(lot)
  else selected.value = at ?? null
}

function clear() {
  store.clear()
  selected.value = null
  slip.said({ text: t('bench.cleared'), undoLabel: t('app.undo'), undo: store.undo })
}

function step(index: number, steps: number) {
  if (isEmpty.value) return select(index)
  const at = fieldLots.value[index]?.key
  const lot = at === undefined ? undefined : stepLots.value[at]
  if (at === undefined || !lot) return
  selected.value = at
  store.setAmount(at, Math.max(0, lot.part.amount + steps * lot.step))
}

function onKey(event: KeyboardEvent) {
  const isTyping =
    event.target instanceof HTMLInputElement &&
    event.target.type === 'text' &&
    !event.target.closest('.stepper')
  if (isTyping || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return
  event.preventDefault()
  if (event.shiftKey) store.redo()
  else store.undo()
}
onMounted(() => window.addEventListener('keydown', onKey))
onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
</script>

<template>
  <div class="bench" :class="{ bare: isEmpty }">
    <header class="page-head">
      <div aria-live="polite">
        <h1>
          {{ isEmpty ? t('bench.empty') : headline }}
        </h1>
        <p>
          {{ isEmpty ? t(lots?.length ? 'bench.emptyHint' : 'bench.emptyStock') : reason }}
          <span class="status">{{ status }}</span>
          <button v-if="store.draft.saved" type="button" class="word-act inline" @click="naming = true">
            {{ t('bench.saveNew') }}
          </button>
        </p>
      </div>
      <div v-if="!isEmpty" class="acts">
        <Button
          v-if="store.draft.saved"
          :label="t('bench.saveNamed')"
          variant="outlined"
          :disabled="!mix"
          @click="save?.saveAgain()"
        />
        <Button v-else :label="t('bench.save')" variant="outlined" :disabled="!mix" @click="naming = true" />
        <Button :label="t('bench.plan')" :disabled="!mix" @click="router.push('/layers')" />
      </div>
    </header>

    <StateNote v-if="error" :error="error" @retry="retry" />

    <div v-if="!isEmpty" class="figures" :aria-busy="!answer">
      <FigureBar
        v-for="{ key, ...figure } in figures"
        :key="key"
        v-bind="figure"
        :open="t('bench.working')"
        @open="working = key"
      />
    </div>

    <section v-if="!isEmpty" ref="sectionBox" class="section" :aria-label="t('bench.section')">
      <header class="ruled">
        <h2>{{ t('bench.section') }}</h2>
        <span v-if="answer?.layers" class="quiet small">{{ t('bench.cycles', answer.layers.cycles) }}</span>
      </header>
      <HeapSection
        v-if="answer?.layers"
        :plan="answer.layers"
        :heap="store.draft.heap"
        :hatches="hatches"
        :width="sectionWidth"
        :height="drawHeight"
      />
      <MixCautions
        class="cautions"
        :method="store.draft.method"
        :notes="mix?.cautions ?? []"
        :names="names"
      />
    </section>

    <div ref="fieldBox" class="middle">
      <BalanceField
        :lots="fieldLots"
        :mix="field.mixPlace.value"
        :selected="field.chosen.value"
        :one-more="field.oneMore.value"
        :outline="field.outline.value"
        v-bind="windowsOf(mix)"
        :width="fieldWidth"
        :height="drawHeight"
        @select="select"
        @step="step"
      />
      <SureNote
        v-if="answer?.confidence && !isEmpty"
        :sure="answer.confidence"
        :parts="store.draft.items"
        @open="working = 'confidence'"
      />
    </div>

    <section class="amounts" :aria-label="t('bench.amounts')">
      <SentenceField v-if="isEmpty || asking" v-model:asking="asking" :does="t('say.go')" @take="sayOn" />
      <BenchAmounts
        v-if="!isEmpty"
        v-model:selected="selected"
        :step-lots="stepLots"
        :reckoned="mix?.items ?? []"
      />
      <template v-else-if="lots?.length">
        <Button
          as="router-link"
          to="/choices"
          variant="outlined"
          class="find-first"
          :label="t('choices.title')"
        />
        <StockChoices :lots="lots" @pick="put" />
      </template>
      <Button
        v-else-if="isEmpty && lots"
        as="router-link"
        to="/stock"
        variant="outlined"
        :label="t('bench.toStock')"
      />
      <BenchActs
        v-if="!isEmpty || store.canUndo"
        :has-stock="!!lots?.length"
        :has-mix="!!mix"
        @add="picking = true"
        @correct="mending = true"
        @work="working = 'c_n'"
        @clear="clear"
      />
      <ul v-if="remarks.length" class="remarks">
        <li v-for="remark in remarks" :key="remark">{{ remark }}</li>
      </ul>
      <FigureNews v-if="!isEmpty" :lots="lots ?? []" />
    </section>

    <StockPicker v-model:open="picking" :lots="waiting" @pick="put" />
    <SaveDialog ref="save" v-model:open="naming" />
    <CorrectDrawer v-model:open="mending" :request="request" :step-lots="stepLots" />
    <WorkingDrawer v-model="working" :recipe="request.recipe" :names="names" />
  </div>
</template>

<style scoped>
.find-first {
  margin-bottom: 14px;
}

.cautions {
  margin-top: 10px;
}

.bench {
  display: grid;
  grid-template-columns: minmax(380px, 1fr) 404px 236px;
  grid-template-areas:
    'head head head'
    'note note note'
    'amounts field section'
    'figures figures figures';
  grid-template-rows: auto auto 1fr auto;
  gap: 14px var(--gap);
  min-height: calc(100dvh - 36px);
}

.bare {
  grid-template-columns: minmax(380px, 1fr) 404px;
  grid-template-areas:
    'head head'
    'note note'
    'amounts field';
}

.page-head {
  grid-area: head;
  min-height: 60px;
}

.status {
  color: var(--ink-2);
  font-style: italic;
}

.figures {
  grid-area: figures;
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 26px;
  min-height: 112px;
  padding-top: 8px;
  border-top: 1.5px solid var(--ink);
}

.section {
  grid-area: section;
  min-width: 0;
}

.middle {
  grid-area: field;
  min-width: 0;
}

.amounts {
  grid-area: amounts;
  min-width: 0;
}

.inline {
  min-height: 0;
  margin-inline-start: 6px;
}

.remarks li {
  margin-top: 6px;
  padding-inline-start: 12px;
  border-inline-start: 3px solid var(--ink-2);
  font-size: 0.9375rem;
}

/* With more lots than the page is high, the answer and the pictures stay in view. */
@media (min-width: 1180px) {
  .figures {
    position: sticky;
    bottom: 0;
    z-index: 2;
    padding-bottom: 8px;
    background: var(--paper);
  }

  .middle,
  .section {
    position: sticky;
    top: 16px;
    align-self: start;
  }
}

@media (max-width: 1179px) {
  .bench {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    grid-template-areas:
      'head head'
      'note note'
      'figures figures'
      'amounts field'
      'section section';
  }
}

@media (max-width: 859px) {
  .bench {
    display: flex;
    flex-direction: column;
    align-items: stretch;
    min-height: 0;
  }

  .figures {
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 14px 18px;
    min-height: 240px;
  }

  .section {
    order: 5;
  }

  .middle {
    order: 3;
  }

  .bare .middle {
    order: 5;
  }

  .amounts {
    order: 4;
  }
}
</style>
