<script setup lang="ts">
import { computed } from 'vue'
import type { CompostTold, UseTold } from '@/api/client'
import ActButton from '@/kit/ActButton.vue'
import { useAttempt } from '@/kit/useAttempt'
import { useSlip } from '@/kit/useSlip'
import { useSay } from '@/words/useSay'
import FigureRows from './FigureRows.vue'
import { useFinish } from './useFinish'
import { useUseWords } from './useUseWords'

/** Some compost: what is left, what was recorded of its heap, what it holds, where it went. */
const { of } = defineProps<{ of: CompostTold }>()
const emit = defineEmits<{ lab: []; count: [] }>()
const say = useSay()
const { t } = say
const { takeHarvestBack, takeBack } = useFinish()
const { attempt } = useAttempt()
const slip = useSlip()
const words = useUseWords()

const share = computed(() => Math.max(0, Math.min(1, of.litres / of.taken_l)))
const age = computed(() => {
  const days = Math.floor(of.age_days)
  return days < 1 ? t('compost.today') : t('compost.age', { days }, days)
})
const screened = computed(() =>
  of.mesh_mm ? t('compost.screened', { mm: say.exact(of.mesh_mm) }) : t('compost.unscreened'),
)
/** What the heap gave against what was expected of it. */
const gave = computed(() => {
  if (!of.expected_l || !of.is_last) return ''
  return t('compost.gave', {
    got: say.litres(Number(of.heap_gave_l.toPrecision(3))),
    share: say.whole((100 * of.heap_gave_l) / of.expected_l),
  })
})
async function back() {
  if (await attempt(() => takeHarvestBack(of))) slip.said({ text: t('compost.takenBack', { name: of.name }) })
}
const useBack = (one: UseTold) => attempt(() => takeBack(of, one.id))
const canGoBack = computed(() => !of.uses.length && !of.changes.length && !of.results.length)
</script>

<template>
  <article>
    <h2 class="ruled">
      {{ of.name }} <span class="quiet small">{{ age }}</span>
    </h2>
    <div class="columns">
      <div>
        <p class="left">
          <b>{{ say.bulk(of.litres) }}</b>
          {{
            t('compost.left', {
              litres: say.litres(Math.round(of.litres)),
              kg: say.kg(Math.round(of.kg)),
              of: say.litres(Math.round(of.taken_l)),
            })
          }}
        </p>
        <div class="bar" aria-hidden="true"><i :style="{ width: `${100 * share}%` }" /></div>
        <p>
          {{ t('compost.from', { heap: of.heap_name ?? of.name }) }} {{ screened }}
          <template v-if="of.rejects_l">{{
            t('compost.rejects', { bulk: say.bulk(of.rejects_l) })
          }}</template>
          {{ gave }}
        </p>
        <p :class="{ warned: !of.shown_hot }">
          {{ t(of.shown_hot ? 'compost.shownHot' : 'compost.notShown') }}
          <template v-if="!of.was_ready">{{ t('compost.notReady') }}</template>
        </p>
        <div class="acts" data-deed="work">
          <ActButton v-if="of.litres > 0" :to="`/use?compost=${of.id}`" :label="t('compost.use')" />
          <ActButton variant="outlined" :label="t('compost.lab')" @click="emit('lab')" />
          <ActButton variant="outlined" :label="t('compost.count')" @click="emit('count')" />
        </div>
        <p class="ways">
          <RouterLink :to="`/chain/compost/${of.id}`">{{ t('chain.ofCompost') }}</RouterLink>
          <RouterLink :to="`/heaps/${of.heap}`">{{ t('compost.heap') }}</RouterLink>
          <button v-if="canGoBack" type="button" class="word-act" data-deed="work" @click="back">
            {{ t('compost.takeBack') }}
          </button>
        </p>
        <ul v-if="of.uses.length || of.changes.length" class="ruled-list" :aria-label="t('compost.went')">
          <li v-for="one in of.uses" :key="one.id">
            <span>{{ words.line(one) }}</span>
            <button
              type="button"
              class="word-act"
              data-deed="work"
              :aria-label="t('compost.backOf', { what: words.line(one) })"
              @click="useBack(one)"
            >
              {{ t('tend.takeBack') }}
            </button>
          </li>
          <li v-for="one in of.changes" :key="one.id">
            <span>
              {{
                t(`compost.change.${one.kind}`, {
                  litres: say.litres(Math.round(one.litres)),
                  day: say.day(one.at.slice(0, 10)),
                })
              }}
              {{ one.note ?? '' }}
            </span>
            <button
              type="button"
              class="word-act"
              data-deed="work"
              @click="attempt(() => takeBack(of, one.id))"
            >
              {{ t('tend.takeBack') }}
            </button>
          </li>
          <li v-for="one in of.results" :key="one.id">
            <span>{{ t('lab.foundOn', { by: one.by || t('lab.someone'), day: say.day(one.made_on) }) }}</span>
            <button
              type="button"
              class="word-act"
              data-deed="work"
              @click="attempt(() => takeBack(of, one.id))"
            >
              {{ t('tend.takeBack') }}
            </button>
          </li>
        </ul>
      </div>
      <section :aria-label="t('lab.holds')">
        <h3>{{ t('lab.holds') }}</h3>
        <FigureRows :figures="of.holds" />
      </section>
    </div>
  </article>
</template>

<style scoped>
article {
  margin-top: 24px;
}

.columns {
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  gap: 14px 36px;
}

h3 {
  font-size: 1rem;
  font-weight: 640;
}

.left b {
  font-size: 1.5rem;
  font-weight: 640;
}

.bar {
  height: 12px;
  margin: 6px 0 10px;
  border: 1px solid var(--ink-2);
  background: var(--sheet);
}

.bar i {
  display: block;
  height: 100%;
  background: var(--ink-2);
}

.warned {
  margin: 8px 0 12px;
  padding-left: 12px;
  border-left: 4px solid var(--warn, var(--act));
}

.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 0 20px;
}

.ways > * {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}

.word-act {
  flex: none;
}

.ruled-list > li {
  padding: 4px 0;
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
}

@media (max-width: 859px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
