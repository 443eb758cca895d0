<script setup lang="ts">
import { computed } from 'vue'
import type { GroundTold } from '@/api/client'
import { useAttempt } from '@/kit/useAttempt'
import ActButton from '@/kit/ActButton.vue'
import { useSay } from '@/words/useSay'
import FigureRows from './FigureRows.vue'
import { isCounted } from './grounds'
import { useFinish } from './useFinish'
import { useUseWords } from './useUseWords'

/** A place: what it got, and until when there is to be no harvest. */
const { of } = defineProps<{ of: GroundTold }>()
const emit = defineEmits<{ change: []; soil: [] }>()
const say = useSay()
const { t } = say
const words = useUseWords()
const { removeGround, takeBackInSoil } = useFinish()
const { attempt, undoable } = useAttempt()

const what = computed(() => {
  const size = isCounted(of.kind)
    ? of.count && t('ground.many', { n: say.exact(of.count) })
    : of.area_m2 && `${say.exact(of.area_m2)} m²`
  return [t(`ground.kind.${of.kind}`), size, of.crop].filter(Boolean).join(', ')
})
const isMuch = computed(() => (of.year_n_kg_ha ?? 0) > of.n_limit_kg_ha)
const year = computed(() => {
  if (!of.year_l) return ''
  const bulk = say.bulk(of.year_l)
  if (of.year_n_kg_ha == null) return t('ground.year', { bulk })
  return t(isMuch.value ? 'ground.yearMuch' : 'ground.yearN', {
    bulk,
    n: say.whole(of.year_n_kg_ha),
    limit: say.whole(of.n_limit_kg_ha),
  })
})
const remove = () =>
  undoable(
    t('ground.removed', { name: of.name }),
    () => removeGround(of),
    { what: 'grounds', id: of.id },
    t('ground.isBack', { name: of.name }),
  )
</script>

<template>
  <article>
    <h2 class="ruled">
      {{ of.name }} <span class="quiet small">{{ what }}</span>
    </h2>
    <p v-if="of.no_harvest_until" class="wait">
      {{ t('ground.noHarvest', { day: say.day(of.no_harvest_until) }) }}
      <span class="quiet small">{{ t('ground.localFirst') }}</span>
    </p>
    <p v-if="year" :class="{ wait: isMuch }">{{ year }}</p>
    <p v-if="!of.got.length" class="quiet">{{ t('ground.nothing') }}</p>
    <ol v-else class="ruled-list">
      <li v-for="one in of.got" :key="one.id">
        <p>
          {{ words.line(one) }}
          <span class="quiet small">
            {{ t('ground.ofCompost', { name: one.compost_name }) }}
            {{ one.n_kg == null ? '' : t('ground.withN', { n: say.kg(Number(one.n_kg.toPrecision(2))) }) }}
          </span>
        </p>
        <p v-for="kept in one.restrictions" :key="kept.what" class="small">{{ words.kept(kept) }}</p>
      </li>
    </ol>
    <details v-if="of.soil.length">
      <summary>{{ t('ground.soil') }}</summary>
      <FigureRows :figures="of.soil" />
      <ul class="ruled-list">
        <li v-for="one in of.results" :key="one.id" class="result">
          <span>{{ t('lab.foundOn', { by: one.by || t('lab.someone'), day: say.day(one.made_on) }) }}</span>
          <button
            type="button"
            class="word-act"
            data-deed="work"
            @click="attempt(() => takeBackInSoil(of, one.id))"
          >
            {{ t('tend.takeBack') }}
          </button>
        </li>
      </ul>
    </details>
    <p class="ways">
      <RouterLink v-if="of.got.length" :to="`/chain/ground/${of.id}`">{{ t('chain.ofGround') }}</RouterLink>
      <ActButton
        data-deed="work"
        variant="outlined"
        :to="`/use?ground=${of.id}`"
        :label="t('ground.use')"
        :aria-label="t('ground.useNamed', { name: of.name })"
      />
      <ActButton
        data-deed="work"
        variant="outlined"
        :label="t('ground.soilResult')"
        :aria-label="t('ground.soilNamed', { name: of.name })"
        @click="emit('soil')"
      />
      <button
        type="button"
        class="word-act"
        data-deed="work"
        :aria-label="t('ground.change', { name: of.name })"
        @click="emit('change')"
      >
        {{ t('ground.changeIt') }}
      </button>
      <button
        type="button"
        class="word-act"
        data-deed="work"
        :aria-label="t('ground.remove', { name: of.name })"
        @click="remove"
      >
        {{ t('ground.removeIt') }}
      </button>
    </p>
  </article>
</template>

<style scoped>
article {
  margin-top: 22px;
}

.wait,
article > p {
  margin: 6px 0;
}

.wait {
  padding-left: 12px;
  border-left: 4px solid var(--act);
  font-weight: 600;
}

.wait .quiet {
  display: block;
  font-weight: 400;
}

.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
}

.ways > * {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}

.result {
  display: flex;
  justify-content: space-between;
  align-items: center;
}

summary {
  min-height: 44px;
  padding: 10px 0;
  cursor: pointer;
}

.ruled-list > li {
  padding: 8px 0;
}

.ruled-list p + p {
  margin-top: 3px;
}
</style>
