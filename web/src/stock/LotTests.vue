<script setup lang="ts">
import { computed } from 'vue'
import type { FieldTest, Lot } from '@/api/client'
import TestGlyph from './TestGlyph.vue'
import { useSay } from '@/words/useSay'
import { useTestWords } from './useTestWords'

/** The small tests that can be made on a lot, and those that were. */
const { lot, tests } = defineProps<{ lot: Lot; tests: FieldTest[] }>()
const emit = defineEmits<{ remove: [test: FieldTest] }>()

const say = useSay()
const { t } = say
const words = useTestWords()

const KINDS = ['weigh', 'drying', 'squeeze', 'bucket', 'bean', 'lab'] as const

const rows = computed(() =>
  KINDS.map((kind) => ({
    kind,
    made: tests
      .filter((test) => test.readings.kind === kind)
      .map((test) => ({
        test,
        words: words.result(test),
        goesOn: test.answer?.goes_on ?? false,
      })),
  })),
)
</script>

<template>
  <section :aria-label="t('tests.title')">
    <header class="ruled">
      <h2>{{ t('tests.title') }}</h2>
    </header>
    <ul>
      <li v-for="row in rows" :key="row.kind">
        <TestGlyph :kind="row.kind" />
        <div>
          <RouterLink data-deed="work" :to="`/stock/${lot.id}/test/${row.kind}`">{{
            t(`test.${row.kind}`)
          }}</RouterLink>
          <p class="quiet small">{{ t(`testFor.${row.kind}`) }}</p>
          <ul v-if="row.made.length" class="made">
            <li v-for="{ test, words: said, goesOn } in row.made" :key="test.id">
              <span
                ><b>{{ say.day(test.made_on) }}</b
                >: {{ said }}</span
              >
              <span class="made-acts">
                <RouterLink
                  v-if="goesOn"
                  :to="`/stock/${lot.id}/test/${row.kind}?test=${test.id}`"
                  class="word-act"
                  >{{ t('tests.goOn') }}</RouterLink
                >
                <button
                  data-deed="work"
                  type="button"
                  class="word-act"
                  :aria-label="
                    t('tests.removeNamed', { test: t(`test.${row.kind}`), day: say.day(test.made_on) })
                  "
                  @click="emit('remove', test)"
                >
                  {{ t('stock.remove') }}
                </button>
              </span>
            </li>
          </ul>
        </div>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section > ul > li {
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr);
  gap: 12px;
  padding: 9px 0;
  border-bottom: 1px solid var(--line);
}

.made {
  margin-top: 4px;
}

.made li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: center;
  font-size: 0.9375rem;
  line-height: 1.3;
}

.made-acts {
  display: flex;
  gap: 14px;
  flex: none;
}

.made-acts a {
  display: flex;
  align-items: center;
  text-decoration: none;
}
</style>
