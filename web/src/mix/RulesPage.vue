<script setup lang="ts">
import '@/theme/controls'
import TextInput from '@/kit/TextInput.vue'
import SelectButton from 'primevue/selectbutton'
import { computed, ref, useTemplateRef, watch } from 'vue'
import type { Material, ThumbAnswer } from '@/api/client'
import { useLimits } from '@/api/useLimits'
import AmountStepper from '@/kit/AmountStepper.vue'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import MaterialPicker from '@/stock/MaterialPicker.vue'
import RuleLadder from './RuleLadder.vue'
import StateNote from '@/kit/StateNote.vue'
import WorkingBoard from './WorkingBoard.vue'
import WorkingDrawer from './WorkingDrawer.vue'
import { useMaterials, useNames } from '@/farm/useFarm'
import { useRule } from './useRule'
import { useSay } from '@/words/useSay'
import { useUnits } from '@/words/useUnits'
import { useWidth } from '@/kit/useWidth'

/** A rule of thumb set beside what it truly gives with the materials at hand, and why the two differ. */
const say = useSay()
const limits = useLimits()
const { t } = say
const units = useUnits()
const { byId } = useMaterials()
const { hatchOf } = useNames()
const { rule, say: sayRule, itemOf, isUnread, isKnown, answer, error, retry } = useRule()

const typed = ref('')
const PRESETS = ['two-one', 'one-one', 'three-one', 'shares'] as const
function pick(text: string) {
  typed.value = text
  sayRule(text)
}
/** What was typed before the materials were there is read once they are; a preset never writes over it. */
const isTyped = ref(false)
function type() {
  isTyped.value = true
  if (isKnown.value) sayRule(typed.value)
}
watch(
  isKnown,
  (known) => {
    if (!known) return
    if (isTyped.value) sayRule(typed.value)
    else pick(t('rules.preset.two-one'))
  },
  { immediate: true },
)

const bys = computed(() => [
  { value: 'volume', label: t('rules.volume') },
  { value: 'weight', label: t('rules.weight') },
])

const names = computed(() => (answer.value?.items ?? []).map(({ material }) => say.nameOf(material)))
const shortcut = computed(() => answer.value?.ladder[0]?.c_n ?? 0)
const headline = computed(() => {
  const got = answer.value
  if (isUnread.value) return t('rules.cannotRead')
  if (!got) return t('rules.title')
  const truth = say.whole(got.mix.c_n_counted)
  const guess = say.whole(shortcut.value)
  if (truth === guess) return t('rules.same', { truth })
  return t('rules.truth', { truth, guess })
})
const verdict = computed(() => {
  if (isUnread.value) return ''
  const stand = answer.value?.mix.standing.c_n
  return stand ? t(`rules.stand.${stand}`) : ''
})

/** Why each step moves: what the materials differ in that was left out before. */
const reasons = computed(() => {
  const got = answer.value
  if (!got) return []
  const each = (of: (item: ThumbAnswer['items'][number]) => string) =>
    got.items.map((item, at) => t('rules.each', { name: names.value[at] ?? '', value: of(item) })).join(', ')
  const texts: Record<string, string> = {
    parts: t('rules.why.parts'),
    mass: t('rules.why.mass', {
      each: each((one) => `${say.fine(units.shown(one.kg / one.litres, 'density'))} ${say.sign('density')}`),
    }),
    'dry-matter': t('rules.why.dry-matter', {
      each: each((one) => `${say.whole(100 - one.moisture_pct)} %`),
    }),
    nitrogen: t('rules.why.nitrogen', {
      each: each((one) => {
        const dry = one.kg * (1 - one.moisture_pct / 100)
        return t('rules.grams', { grams: say.fine(dry > 0 ? (1000 * one.nitrogen_kg) / dry : 0) })
      }),
    }),
  }
  return got.ladder.map(({ by, c_n }) => ({
    by,
    title: t(`rules.by.${by}`),
    ratio: say.whole(c_n),
    text: texts[by] ?? '',
  }))
})

/** What the rule would have to say. */
const mended = computed(() => {
  const got = answer.value
  if (!got || got.mix.standing.c_n === 'right') return []
  return got.mended.flatMap((parts, place) => {
    if (parts === null || parts >= 100) return []
    const name = rule.parts[place]?.of.map((id) => say.nameWithin(id)).join(' + ') ?? ''
    const rounded = Number(parts.toPrecision(2))
    return [{ place, parts: rounded, text: t('rules.mended', { parts: say.exact(rounded), name }) }]
  })
})
const water = computed(() => {
  const got = answer.value
  if (!got || isUnread.value) return ''
  const moisture = say.whole(got.mix.moisture_pct)
  const per = t(rule.by === 'volume' ? 'rules.perCubic' : 'rules.perTonne', {
    size: rule.by === 'volume' ? say.heap(1000) : say.kg(1000),
  })
  const { low, high, aim } = got.water_to_add_l
  if (high < 0) return t('rules.tooWet', { moisture })
  if (low <= 0) return t('rules.moist', { moisture })
  return t('rules.wantsWater', { moisture, water: say.litres(aim), per })
})

const chosen = ref('nitrogen')
const board = computed(
  () => answer.value?.ladder.find(({ by }) => by === chosen.value) ?? answer.value?.ladder.at(-1),
)

/** The rule measured out, as a recipe for its sums. */
const figure = ref<string | null>(null)
const recipe = computed(() => ({
  format: 'zymarch-recipe/1',
  items: (answer.value?.items ?? []).map(({ material, kg }) => ({ ...itemOf(material), kg })),
}))

const box = useTemplateRef<HTMLElement>('box')
const width = useWidth(box, 560)

const materialOf = (id: string) => byId.value.get(id) ?? null
function put(part: { of: string[] }, at: number, material: Material | null) {
  if (material) part.of[at] = material.id
}
</script>

<template>
  <p class="crumb">
    <RouterLink to="/choices">{{ t('bench.find') }}</RouterLink>
  </p>
  <header class="page-head">
    <div aria-live="polite">
      <h1>{{ headline }}</h1>
      <p>
        {{ verdict }} {{ water }}
        <RouterLink to="/wall/rules" class="to-wall">{{ t('bench.wall') }}</RouterLink>
        <button v-if="answer" type="button" class="word-act inline" @click="figure = 'moisture'">
          {{ t('bench.working') }}
        </button>
      </p>
    </div>
  </header>
  <div class="columns">
    <section :aria-label="t('rules.rule')">
      <form @submit.prevent="sayRule(typed)">
        <div class="field">
          <label for="rule">{{ t('rules.type') }}</label>
          <TextInput
            id="rule"
            v-model="typed"
            fluid
            :maxlength="200"
            :invalid="isUnread"
            :placeholder="t('rules.preset.two-one')"
            @update:model-value="type"
          />
          <p v-if="isUnread" class="fault" role="alert">{{ t('rules.unread') }}</p>
        </div>
        <p class="presets">
          <button
            v-for="preset in PRESETS"
            :key="preset"
            type="button"
            class="word-act"
            @click="pick(t(`rules.preset.${preset}`))"
          >
            {{ t(`rules.preset.${preset}`) }}
          </button>
        </p>
      </form>
      <SelectButton
        v-model="rule.by"
        :options="bys"
        option-label="label"
        option-value="value"
        :allow-empty="false"
        :aria-label="t('rules.partsOf')"
      />
      <ul class="ruled-list parts">
        <li v-for="(part, place) in rule.parts" :key="place">
          <AmountStepper
            v-model="part.parts"
            :name="t('rules.part', { n: place + 1 })"
            :step="part.parts >= 10 ? 10 : 1"
            v-bind="limits.of('part')"
          />
          <div class="of">
            <div v-for="(id, at) in part.of" :key="at" class="one">
              <HatchSwatch :hatch="hatchOf(id)" :size="36" />
              <MaterialPicker
                :model-value="materialOf(id)"
                :input-id="`part-${place}-${at}`"
                :aria-label="t('rules.stands', { n: place + 1 })"
                :is-first="false"
                @update:model-value="(material) => put(part, at, material)"
              />
              <button
                v-if="part.of.length > 1"
                type="button"
                class="word-act drop"
                :aria-label="t('rules.drop', { name: say.nameOf(id) })"
                @click="part.of.splice(at, 1)"
              >
                ×
              </button>
            </div>
            <button
              v-if="part.of.length < 3"
              type="button"
              class="word-act small"
              @click="part.of.push(part.of.at(-1) ?? 'wheat-straw')"
            >
              {{ t('rules.share') }}
            </button>
          </div>
        </li>
      </ul>
      <template v-if="mended.length">
        <h2 class="ruled">{{ t('rules.better') }}</h2>
        <ul>
          <li v-for="one in mended" :key="one.place" class="mended">
            {{ one.text }}
            <button
              type="button"
              class="word-act"
              :aria-label="t('rules.takeNamed', { text: one.text })"
              @click="rule.parts[one.place]!.parts = one.parts"
            >
              {{ t('rules.take') }}
            </button>
          </li>
        </ul>
      </template>
    </section>
    <section ref="box" :aria-label="t('rules.why.title')">
      <h2 class="ruled">{{ t('rules.why.title') }}</h2>
      <StateNote v-if="!answer" :error="error" @retry="retry" />
      <template v-else>
        <RuleLadder
          :answer="answer"
          :names="names"
          :chosen="chosen"
          :width="width"
          @choose="(by) => (chosen = by)"
        />
        <ol class="reasons">
          <li v-for="reason in reasons" :key="reason.by" :class="{ here: reason.by === board?.by }">
            <button
              type="button"
              class="word-act"
              :aria-pressed="reason.by === board?.by"
              @click="chosen = reason.by"
            >
              {{ reason.title }}: {{ reason.ratio }}
            </button>
            <p>{{ reason.text }}</p>
          </li>
        </ol>
        <div v-if="board" class="board">
          <WorkingBoard :lines="board.lines" :names="names" />
        </div>
      </template>
    </section>
  </div>
  <WorkingDrawer v-model="figure" :recipe="recipe" :names="names" />
</template>

<style scoped>
.to-wall {
  margin-inline-end: 10px;
}

.crumb {
  margin-bottom: 4px;
}

.presets {
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
}

form {
  gap: 4px;
  margin-bottom: 8px;
}

.parts {
  margin: 14px 0 18px;
}

.parts > li {
  display: grid;
  grid-template-columns: 132px minmax(0, 1fr);
  gap: 14px;
  align-items: start;
  padding: 10px 0 4px;
}

.one {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 6px;
}

.one > :nth-child(2) {
  flex: 1;
  min-width: 0;
}

.drop {
  width: 44px;
  text-align: center;
}

.mended {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  align-items: center;
}

.inline {
  min-height: 0;
}

.reasons li {
  padding: 4px 0 8px 12px;
  border-inline-start: 3px solid var(--line);
}

.reasons .here {
  border-color: var(--act);
}

.reasons p {
  line-height: 1.35;
}

.reasons .word-act {
  min-height: 36px;
}

.board {
  display: flex;
  flex-direction: column;
  gap: 14px;
  margin-top: 18px;
}

@media (max-width: 480px) {
  .parts > li {
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }
}
</style>
