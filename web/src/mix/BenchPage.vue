<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed, ref, useTemplateRef, watch } from 'vue'
import BalanceField from './BalanceField.vue'
import BenchActs from './BenchActs.vue'
import BenchAmounts from './BenchAmounts.vue'
import BenchDrawers from './BenchDrawers.vue'
import BenchHead from './BenchHead.vue'
import FigureBars from './FigureBars.vue'
import FigureStrip from './FigureStrip.vue'
import FigureNews from './FigureNews.vue'
import HeapSection from '@/plan/HeapSection.vue'
import MixCautions from './MixCautions.vue'
import SentenceField from '@/stock/SentenceField.vue'
import StateNote from '@/kit/StateNote.vue'
import StockChoices from '@/plan/StockChoices.vue'
import SureNote from './SureNote.vue'
import type { BatchPart, Lot } from '@/api/client'
import { trouble } from '@/api/trouble'
import { useBench } from './useBench'
import { useSteps } from './useStepLots'
import { useNames } from '@/farm/useFarm'
import { useField } from './useField'
import { useFigures } from './useFigures'
import { useSay } from '@/words/useSay'
import { useUndo } from './useUndo'
import { useSlip } from '@/kit/useSlip'
import { useVerdict } from './useVerdict'
import { useHeight, useIsPhone, useMedia } from '@/kit/useMedia'
import { useWidth } from '@/kit/useWidth'
import { windowsOf } from './field'
import { useDraft } from './draft'

const say = useSay()
const { t } = say
const store = useDraft()
const slip = useSlip()
const { stepOf, keptStep } = useSteps()
const { hatchOf } = useNames()
const { answer, error, isOld, retry, request, onBench, lots, measures } = useBench()
const { is, mend, doIt, reason } = useVerdict(answer)

const selected = ref<number | null>(null)
const picking = ref(false)
const tapping = ref(false)
const mending = ref(false)
const naming = ref(false)
/** What was not understood is still asked when something is on the bench. */
const asking = ref(false)
const working = ref<string | null>(null)
const drawers = useTemplateRef<InstanceType<typeof BenchDrawers>>('drawers')

const fieldBox = useTemplateRef<HTMLElement>('fieldBox')
const sectionBox = useTemplateRef<HTMLElement>('sectionBox')
/** The drawings come a breath after the verdict, in the room that is kept for them. */
const isDrawn = ref(false)
watch(fieldBox, (box) => box && requestAnimationFrame(() => setTimeout(() => (isDrawn.value = true))), {
  once: true,
})
const fieldWidth = useWidth(fieldBox, 420)
const sectionWidth = useWidth(sectionBox, 236)
const isPhone = useIsPhone()
const isWide = useMedia('(min-width: 1180px)')
/** As high as the page leaves it, between the verdict and the figures. */
const pageHeight = useHeight()
const drawHeight = computed(() =>
  fieldWidth.value < 390
    ? fieldWidth.value + 20
    : isWide.value
      ? Math.max(380, Math.min(640, pageHeight.value - 392))
      : 408,
)

const mix = computed(() => answer.value?.mix ?? null)
const names = computed(() => store.draft.items.map((part) => say.nameOf(part.material, part.label)))
const hatches = computed(() => store.draft.items.map((part) => hatchOf(part.material)))

const isEmpty = computed(() => store.draft.items.length === 0)
/** Nothing is drawn that its answer would push about; without an answer, what was kept here is. */
const isReady = computed(
  () =>
    answer.value !== undefined ||
    error.value !== null ||
    trouble.value !== null ||
    (isEmpty.value && lots.value !== undefined),
)

const field = useField(answer, lots, selected)
const fieldLots = field.marks

const figures = useFigures(answer)
/** What the strip of a phone has no room to say. */
const off = computed(() => figures.value.filter((figure) => figure.off))

/** Sayings that the verdict and the figures do not hold yet. */
const remarks = computed(() =>
  (mix.value?.findings ?? [])
    .filter((found) => ['carbon-implausible'].includes(found.code))
    .map((found) => say.finding(found, names.value)),
)

function put(lot: Lot) {
  // Half of what is there is a fair first guess, and never nothing.
  const step = stepOf(lot)
  const half = Math.max(step, Math.floor(lot.amount / 2 / step) * step)
  store.put(lot, measures.value ?? [], Math.min(half, Math.max(lot.amount, step)))
  selected.value = store.draft.items.length - 1
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
  const part = at === undefined ? undefined : store.draft.items[at]
  if (at === undefined || !part) return
  selected.value = at
  store.setAmount(at, Math.max(0, part.amount + steps * keptStep(part)))
}

useUndo((text) => slip.said({ text, undoLabel: t('app.undo'), undo: store.undo }))
</script>

<template>
  <StateNote v-if="!isReady" />
  <div v-else class="bench" :class="{ bare: isEmpty, old: isOld }">
    <BenchHead
      class="head"
      :verdict="isEmpty ? t('bench.empty') : is"
      :mend="isEmpty || !mix ? null : mend"
      :reason="isEmpty ? t(lots?.length ? 'bench.emptyHint' : 'bench.emptyStock') : reason"
      :has-mix="!!mix"
      :is-old="isOld && !isEmpty"
      @mend="doIt"
      @save="store.draft.saved ? drawers?.saveAgain() : (naming = true)"
      @save-new="naming = true"
    >
      <FigureStrip
        v-if="isPhone && !isEmpty"
        class="strip"
        :figures="figures"
        :aria-busy="!answer"
        @open="working = $event"
      />
    </BenchHead>

    <StateNote v-if="error" :error="error" class="note" @retry="retry" />

    <FigureBars
      v-if="!isEmpty && !isPhone && !isWide"
      class="figures"
      :figures="figures"
      :aria-busy="!answer"
      @open="working = $event"
    />

    <section class="amounts" :aria-label="t('bench.amounts')">
      <SentenceField v-if="isEmpty || asking" v-model:asking="asking" :does="t('say.go')" @take="sayOn" />
      <ul v-if="isPhone && off.length" class="off-words">
        <li v-for="figure in off" :key="figure.key">
          <b>{{ figure.label }}:</b> {{ figure.words }}
        </li>
      </ul>
      <BenchActs
        v-if="!isEmpty || store.canUndo"
        :has-stock="!!lots?.length"
        :has-mix="!!mix"
        @add="picking = true"
        @correct="mending = true"
      />
      <FigureNews v-if="!isEmpty" :lots="lots ?? []" />
      <BenchAmounts
        v-if="!isEmpty"
        v-model:selected="selected"
        :on-bench="onBench"
        :reckoned="mix?.items ?? []"
      />
      <div v-if="!isEmpty" class="foot">
        <button type="button" class="word-act" @click="clear">{{ t('bench.clear') }}</button>
        <button v-if="mix" type="button" class="word-act" @click="working = 'c_n'">
          {{ t('bench.showWorking') }}
        </button>
        <RouterLink v-if="mix" to="/wall/mix" class="word-act to-wall">{{ t('bench.wall') }}</RouterLink>
      </div>
      <template v-else-if="lots?.length">
        <ActButton to="/choices" variant="outlined" class="find-first" :label="t('bench.find')" />
        <StockChoices :lots="lots" @pick="put" />
        <button type="button" class="word-act" @click="tapping = true">{{ t('bench.addOther') }}</button>
      </template>
      <div v-else-if="isEmpty && lots" class="find-first">
        <ActButton variant="outlined" :label="t('bench.tap')" @click="tapping = true" />
        <ActButton to="/stock" variant="outlined" :label="t('bench.toStock')" />
      </div>
      <ul v-if="remarks.length" class="remarks">
        <li v-for="remark in remarks" :key="remark">{{ remark }}</li>
      </ul>
    </section>

    <div ref="fieldBox" class="middle" :style="{ minHeight: `${drawHeight}px` }">
      <BalanceField
        v-if="isDrawn"
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
        :recipe="request.recipe"
        @open="working = 'confidence'"
      />
    </div>

    <section v-if="!isEmpty" ref="sectionBox" class="section" :aria-label="t('bench.section')">
      <header class="ruled">
        <h2>{{ t('bench.section') }}</h2>
        <RouterLink v-if="answer?.layers && isWide" to="/wall/section" class="small">{{
          t('bench.wall')
        }}</RouterLink>
        <span v-else-if="answer?.layers" class="quiet small">{{
          t('bench.cycles', answer.layers.cycles)
        }}</span>
      </header>
      <HeapSection
        v-if="isDrawn && answer?.layers"
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

    <FigureBars
      v-if="!isEmpty && isWide"
      class="figures"
      :figures="figures"
      :aria-busy="!answer"
      @open="working = $event"
    />

    <BenchDrawers
      ref="drawers"
      v-model:picking="picking"
      v-model:tapping="tapping"
      v-model:mending="mending"
      v-model:naming="naming"
      v-model:working="working"
      :request="request"
      :lots="lots ?? []"
      :names="names"
      @pick="put"
      @take="(parts) => sayOn(parts, 0)"
    />
  </div>
</template>

<style scoped>
.find-first {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin-bottom: 14px;
}

.cautions {
  margin-top: 10px;
}

/* The drawings take the room there is; the amounts no more than their words need. */
.bench {
  display: grid;
  grid-template-columns: minmax(380px, 500px) minmax(404px, 1.7fr) minmax(236px, 1fr);
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
  grid-template-columns: minmax(380px, 1fr) minmax(404px, 1fr);
  grid-template-areas:
    'head head'
    'note note'
    'amounts field';
}

.head {
  grid-area: head;
}

.note {
  grid-area: note;
}

.figures {
  grid-area: figures;
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

.to-wall {
  display: flex;
  align-items: center;
  text-decoration: none;
}

.foot {
  display: flex;
  gap: 16px;
  font-size: 0.9375rem;
}

.remarks li {
  margin-top: 6px;
  padding-inline-start: 12px;
  border-inline-start: 3px solid var(--ink-2);
  font-size: 0.9375rem;
}

/* What is not of this state of the mix is pale until the server answers again. */
.old .figures,
.old .strip,
.old .middle,
.old .section {
  opacity: 0.4;
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

  /* What has the focus is never behind the figures. */
  .amounts :deep(*) {
    scroll-margin-bottom: 140px;
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

  .bare {
    grid-template-areas:
      'head head'
      'note note'
      'amounts field';
  }
}

@media (max-width: 859px) {
  .bench {
    display: flex;
    flex-direction: column;
    align-items: stretch;
    min-height: 0;
  }

  .off-words {
    margin-bottom: 10px;
    font-size: 0.9375rem;
    line-height: 1.3;
  }
}
</style>
