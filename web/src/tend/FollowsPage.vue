<script setup lang="ts">
import { computed, reactive, watch } from 'vue'
import ActButton from '@/kit/ActButton.vue'
import FormField from '@/kit/FormField.vue'
import NumberField from '@/kit/NumberField.vue'
import StateNote from '@/kit/StateNote.vue'
import type { SchoolId, SiteRules } from '@/api/client'
import { useFollows } from './useFollows'
import { useSay } from '@/words/useSay'

/** Where practitioners differ: which answer this place follows, why each is held, and its local rule. */
const { t, of } = useSay()
const { site, rules, error, retry, save, isSaving } = useFollows()

interface Local {
  least_c: number | null
  hours: number | null
  turns: number | null
  soil: number | null
  else: number | null
  criterion: '' | SiteRules['criteria'][number]
  nLimit: number | null
}
const chosen = reactive<Record<string, SchoolId>>({})
const local = reactive<Local>({
  least_c: null,
  hours: null,
  turns: null,
  soil: null,
  else: null,
  criterion: '',
  nLimit: null,
})

watch(rules, (told) => told && fill(told), { immediate: true })
function fill(told: SiteRules) {
  for (const { question, id } of told.schools) if (told.follows.includes(id)) chosen[question] = id
  const { least_c, hours, turns, wait_days, criterion, n_limit_kg_ha } = told.local
  Object.assign(local, {
    least_c: least_c ?? null,
    hours: hours ?? null,
    turns: turns ?? null,
    soil: wait_days?.[0] ?? null,
    else: wait_days?.[1] ?? null,
    criterion: criterion ?? '',
    nLimit: n_limit_kg_ha ?? null,
  })
}

const questions = computed(() => {
  const by = new Map<string, SiteRules['schools']>()
  for (const row of rules.value?.schools ?? []) by.set(row.question, [...(by.get(row.question) ?? []), row])
  return [...by].map(([question, answers]) => ({ question, answers }))
})

function keep() {
  const usual = rules.value?.usual_wait_days ?? [120, 90]
  const days =
    local.soil === null && local.else === null ? null : [local.soil ?? usual[0]!, local.else ?? usual[1]!]
  void save({
    version: rules.value?.version ?? 0,
    follows: Object.values(chosen),
    local: {
      least_c: local.least_c,
      hours: local.hours,
      turns: local.turns === null ? null : Math.round(local.turns),
      wait_days: days?.map(Math.round) ?? null,
      criterion: local.criterion || null,
      n_limit_kg_ha: local.nLimit,
    },
  })
}
</script>

<template>
  <p class="crumb">
    <RouterLink to="/settings">{{ t('nav.settings') }}</RouterLink>
  </p>
  <header class="page-head">
    <div>
      <h1>{{ t('school.title') }}</h1>
      <p>{{ t('school.hint') }}</p>
    </div>
  </header>
  <StateNote v-if="!rules" :error="error" @retry="retry" />
  <form v-else @submit.prevent="keep">
    <fieldset v-for="{ question, answers } in questions" :key="question">
      <legend class="ruled">{{ t(`school.question.${question}`) }}</legend>
      <label v-for="answer in answers" :key="answer.id">
        <input v-model="chosen[question]" type="radio" :name="question" :value="answer.id" />
        <span>
          <b>{{ t(`school.answer.${answer.id}`) }}</b>
          <span v-if="answer.is_usual" class="quiet small usual">{{ t('school.usual') }}</span>
          <span class="small why">{{ t(`school.why.${answer.id}`) }}</span>
        </span>
      </label>
    </fieldset>
    <fieldset>
      <legend class="ruled">{{ t('school.local') }}</legend>
      <p class="small quiet">{{ t('school.localHint') }}</p>
      <div class="fields">
        <FormField
          id="local-least"
          field="local.least_c"
          :label="t('school.leastC', { least: of(rules.usual_least_c, 'temperature') })"
        >
          <NumberField
            id="local-least"
            v-model="local.least_c"
            class="full"
            quantity="temperature"
            :min="rules.usual_least_c"
            :max="75"
            empty
          />
        </FormField>
        <FormField id="local-hours" field="local.hours" :label="t('school.hours')">
          <NumberField id="local-hours" v-model="local.hours" class="full" :min="1" :max="2400" empty />
        </FormField>
        <FormField id="local-turns" field="local.turns" :label="t('school.turns')">
          <NumberField id="local-turns" v-model="local.turns" class="full" :min="1" :max="50" empty />
        </FormField>
        <FormField
          id="local-soil"
          field="local.wait_days"
          :label="t('school.waitSoil', { n: rules.usual_wait_days[0]! })"
        >
          <NumberField id="local-soil" v-model="local.soil" class="full" :min="0" :max="730" empty />
        </FormField>
        <FormField
          id="local-else"
          field="local.wait_days"
          :label="t('school.waitElse', { n: rules.usual_wait_days[1]! })"
        >
          <NumberField id="local-else" v-model="local.else" class="full" :min="0" :max="730" empty />
        </FormField>
        <FormField
          id="local-n"
          field="local.n_limit_kg_ha"
          :label="t('school.nLimit')"
          :hint="t('school.nLimitHint', { usual: rules.usual_n_limit_kg_ha })"
        >
          <NumberField id="local-n" v-model="local.nLimit" class="full" :min="1" :max="2000" empty />
        </FormField>
        <FormField id="local-criterion" field="local.criterion" :label="t('school.criterion')">
          <select id="local-criterion" v-model="local.criterion" class="full">
            <option value="">{{ t('school.criterionNone') }}</option>
            <option v-for="one in rules.criteria" :key="one" :value="one">
              {{ t(`hot.criterion.${one}`) }}
            </option>
          </select>
        </FormField>
      </div>
    </fieldset>
    <div data-deed="keep">
      <button type="submit" hidden />
      <ActButton :label="t('school.save', { name: site?.name ?? '' })" :loading="isSaving" @click="keep" />
    </div>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 20px;
  max-width: 760px;
  margin-top: 18px;
}

fieldset {
  min-width: 0;
  margin: 0;
  padding: 0;
  border: 0;
}

legend {
  width: 100%;
  font-weight: 640;
}

fieldset label {
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr);
  gap: 8px;
  padding: 9px 0;
  border-bottom: 1px solid var(--line);
  cursor: pointer;
}

input[type='radio'] {
  width: 22px;
  height: 22px;
  margin: 0;
  accent-color: var(--act);
}

.why {
  display: block;
}

.usual {
  margin-left: 8px;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 4px 20px;
  margin-top: 8px;
}

.fields :deep(label) {
  display: block;
  padding: 0;
  border: 0;
}

select {
  min-height: 44px;
  padding: 6px 8px;
  border: 1px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--sheet);
  color: inherit;
  font: inherit;
}
</style>
