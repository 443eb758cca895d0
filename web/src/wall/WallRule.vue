<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import { useNames } from '@/farm/useFarm'
import { useRule } from '@/mix/useRule'
import { useSay } from '@/words/useSay'
import WallGuess from './WallGuess.vue'

/** One of two rules on the wall: what it says, what each thing left out does to it, and what it truly gives. */
const { first, at } = defineProps<{
  /** The rule it begins with. */
  first: string
  /** How many steps of the ladder are told; the last is the truth. */
  at: number
}>()
const emit = defineEmits<{ steps: [count: number] }>()
const say = useSay()
const { t } = say
const { hatchOf } = useNames()
const { rule, say: sayRule, isUnread, isKnown, answer } = useRule()

const typed = ref(first)
watch(isKnown, (known) => known && sayRule(typed.value), { immediate: true })
const guess = ref<number | null>(null)

const ladder = computed(() => answer.value?.ladder ?? [])
watch(ladder, (now) => emit('steps', now.length), { immediate: true })
const told = computed(() => ladder.value.slice(0, Math.max(0, Math.min(at, ladder.value.length - 1))))
const isTold = computed(() => ladder.value.length > 0 && at >= ladder.value.length)
const truth = computed(() => say.whole(answer.value?.mix.c_n_counted ?? 0))
const parts = computed(() =>
  rule.parts.map(({ parts: count, of }) => ({
    key: of.join(' '),
    hatch: hatchOf(of[0] ?? ''),
    words: `${say.count(count)} ${of.map((id) => say.nameWithin(id)).join(' + ')}`,
  })),
)
</script>

<template>
  <section :aria-label="typed">
    <input
      v-if="at === 0"
      v-model="typed"
      class="rule"
      :aria-label="t('rules.type')"
      maxlength="200"
      @change="sayRule(typed)"
    />
    <p v-if="isUnread" class="fault" role="alert">{{ t('rules.unread') }}</p>
    <ul>
      <li v-for="part in parts" :key="part.key">
        <HatchSwatch :hatch="part.hatch" :size="52" />
        <b>{{ part.words }}</b>
      </li>
    </ul>
    <dl v-if="told.length">
      <div v-for="step in told" :key="step.by">
        <dt>{{ t(`wall.ladder.${step.by}`) }}</dt>
        <dd>{{ say.whole(step.c_n) }}</dd>
      </div>
    </dl>
    <WallGuess v-if="answer" v-model:guess="guess" :truth="truth" unit=": 1" :is-told="isTold" />
  </section>
</template>

<style scoped>
section {
  padding-top: 14px;
  border-top: 3px solid var(--ink);
}

.rule {
  width: 100%;
  margin-bottom: 14px;
  padding: 6px 10px;
  border: 1.5px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
}

li {
  display: flex;
  gap: 20px;
  align-items: center;
  padding: 5px 0;
}

dl {
  margin: 12px 0;
}

dl > div {
  display: flex;
  justify-content: space-between;
  gap: 20px;
  align-items: baseline;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}

dd {
  margin: 0;
  font-size: max(53.4px, 3.6vw);
  font-weight: 680;
  line-height: 1.1;
}
</style>
