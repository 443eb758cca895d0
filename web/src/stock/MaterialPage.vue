<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import DoubtList from './DoubtList.vue'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import RangeBar from '@/mix/RangeBar.vue'
import StateNote from '@/kit/StateNote.vue'
import { useAttempt } from '@/kit/useAttempt'
import { useMaterials, useNames } from '@/farm/useFarm'
import { useOwnMaterials } from './useOwnMaterials'
import { useSay } from '@/words/useSay'
import { useUnits } from '@/words/useUnits'
import type { RangeFigure } from '@/mix/range'

/** One material: its ranges, how long it keeps, what to mind at each moment of the work, its source. */
const { material: id } = defineProps<{ material: string }>()

const say = useSay()
const { t } = say
const units = useUnits()
const router = useRouter()
const { undoable } = useAttempt()
const { materials, byId } = useMaterials()
const { hatchOf } = useNames()
const { remove } = useOwnMaterials()

const found = computed(() => byId.value.get(id) ?? null)

const FIGURES: RangeFigure[] = ['c_n', 'moisture_pct', 'n_pct', 'density_kg_l', 'settle', 'ash_pct']

function number(key: RangeFigure, value: number): string {
  if (key === 'density_kg_l') return say.exact(units.shown(value, 'density'))
  if (key === 'settle') return say.whole(value * 100)
  return say.exact(value)
}

const rows = computed(() => {
  const of = found.value
  if (!of) return []
  return FIGURES.map((key) => {
    const value = of[key]
    const spread = typeof value === 'number' ? { low: value, typical: value, high: value } : value
    const hasRange = spread.low < spread.high
    const unit = key === 'c_n' ? ': 1' : key === 'density_kg_l' ? units.sign('density') : '%'
    return {
      key,
      spread,
      value: `${number(key, spread.typical)} ${unit}`,
      range: hasRange
        ? t('reference.range', { low: number(key, spread.low), high: number(key, spread.high) })
        : '',
    }
  }).filter((row) => row.spread.typical > 0)
})

const facts = computed(() => {
  const of = found.value
  if (!of) return []
  const facts = [
    [t('reference.group'), t(`group.${of.group}`)],
    [t('reference.speed'), t(`degradability.${of.degradability}`)],
    [t('reference.size'), t(`particle.${of.particle}`)],
    [t('reference.structure'), t(`structure.${of.structure}`)],
    [t('reference.keeps'), of.keeps_days ? t('reference.keepsDays', of.keeps_days) : t('fresh.lasts')],
  ]
  if (of.lignin_pct != null) facts.push([t('reference.lignin'), `${say.exact(of.lignin_pct)} %`])
  if (of.p_pct != null || of.k_pct != null)
    facts.push([
      t('reference.minerals'),
      t('reference.mineralsOf', { p: say.exact(of.p_pct ?? 0), k: say.exact(of.k_pct ?? 0) }),
    ])
  if (of.decays_pct != null)
    facts.push([t('reference.decays'), t('reference.percent', { share: say.exact(of.decays_pct) })])
  if (of.wet_max_pct != null)
    facts.push([t('reference.wetMax'), t('reference.wetOf', { share: say.exact(of.wet_max_pct) })])
  if (of.names.length) facts.push([t('reference.otherNames'), of.names.join(', ')])
  if (of.name_es) facts.push([t('reference.spanish'), [of.name_es, ...of.names_es].join(', ')])
  facts.push([t('reference.source'), of.source])
  return facts
})

const MOMENTS = ['stock', 'mix', 'method', 'build', 'use'] as const
const minding = computed(() =>
  MOMENTS.map((moment) => ({
    moment,
    cautions: found.value?.cautions.filter((caution) => caution.moments.includes(moment)) ?? [],
  })).filter(({ cautions }) => cautions.length),
)

async function takeOff() {
  const gone = found.value
  if (!gone) return
  await undoable(
    t('stock.removed', { name: gone.name }),
    () => remove.mutateAsync(gone.id),
    { what: 'materials', id: gone.id },
    t('stock.back', { name: gone.name }),
  )
  void router.push('/reference')
}
</script>

<template>
  <StateNote v-if="!materials.length" />
  <div v-else-if="!found">
    <h1>{{ t('reference.gone') }}</h1>
    <p>
      <RouterLink to="/reference">{{ t('nav.reference') }}</RouterLink>
    </p>
  </div>
  <template v-else>
    <p class="crumb">
      <RouterLink to="/reference">{{ t('nav.reference') }}</RouterLink>
    </p>
    <header class="page-head">
      <div class="named">
        <HatchSwatch :hatch="hatchOf(found.id)" :size="72" />
        <div>
          <h1>{{ found.name }}</h1>
          <p :class="{ alarm: found.must_not_go_in }">
            {{ found.must_not_go_in ? t('reference.refused') : found.note }}
          </p>
        </div>
      </div>
      <div class="acts">
        <ActButton
          v-if="found.is_own"
          data-deed="book"
          variant="outlined"
          :label="t('stock.remove')"
          @click="takeOff"
        />
        <ActButton
          v-if="found.is_own"
          data-deed="book"
          :to="`/reference/${found.id}/change`"
          variant="outlined"
          :label="t('stock.edit')"
        />
        <ActButton
          data-deed="book"
          :to="`/reference/new?copy=${found.id}`"
          variant="outlined"
          :label="t('reference.copy')"
        />
      </div>
    </header>
    <DoubtList v-if="found.is_own" :doubts="found.doubts" />
    <div class="columns">
      <section :aria-label="t('lotPage.figures')">
        <h2 class="ruled">{{ t('lotPage.figures') }}</h2>
        <dl class="figures">
          <div v-for="row in rows" :key="row.key">
            <dt>{{ t(`figure.${row.key}`) }}</dt>
            <dd class="value">{{ row.value }}</dd>
            <dd><RangeBar v-if="row.range" v-bind="row.spread" :figure="row.key" /></dd>
            <dd class="quiet small">{{ row.range }}</dd>
          </div>
        </dl>
        <dl class="facts">
          <div v-for="[term, words] in facts" :key="term">
            <dt>{{ term }}</dt>
            <dd>{{ words }}</dd>
          </div>
        </dl>
      </section>
      <section :aria-label="t('lotPage.minding')">
        <h2 class="ruled">{{ t('lotPage.minding') }}</h2>
        <p v-if="!minding.length" class="quiet">{{ t('reference.nothing') }}</p>
        <div v-for="{ moment, cautions } in minding" :key="moment" class="moment">
          <h3>{{ t(`moment.${moment}`) }}</h3>
          <ul>
            <li v-for="caution in cautions" :key="caution.code" :class="caution.severity">
              <b>{{ t(`severity.${caution.severity}`) }}:</b> {{ t(`caution.${caution.code}`) }}
            </li>
          </ul>
        </div>
        <p class="quiet small">{{ t('reference.local') }}</p>
      </section>
    </div>
  </template>
</template>

<style scoped>
.crumb {
  margin-bottom: 4px;
}

.named {
  display: flex;
  gap: 16px;
}

.alarm {
  color: var(--alarm);
  font-weight: 600;
}

.figures > div {
  display: grid;
  grid-template-columns: minmax(0, 9rem) 7.5rem minmax(60px, 1fr) minmax(0, 8rem);
  gap: 12px;
  align-items: center;
  min-height: 42px;
  border-bottom: 1px solid var(--line);
}

.value {
  font-weight: 640;
  white-space: nowrap;
}

.facts {
  margin-top: 18px;
}

.facts > div {
  display: grid;
  grid-template-columns: minmax(0, 9rem) minmax(0, 1fr);
  gap: 12px;
  padding: 4px 0;
}

.facts dt {
  color: var(--ink-2);
}

.moment {
  margin: 10px 0 14px;
}

h3 {
  font-size: 0.9375rem;
  color: var(--ink-2);
}

.moment li {
  margin-top: 5px;
}

.prohibit {
  color: var(--alarm);
}

@media (max-width: 859px) {
  .figures > div {
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 12px;
    padding: 7px 0;
  }

  .figures dd:nth-of-type(3) {
    text-align: end;
  }
}
</style>
