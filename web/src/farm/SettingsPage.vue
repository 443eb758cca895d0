<script setup lang="ts">
import '@/theme/controls'
import ActButton from '@/kit/ActButton.vue'
import TextInput from '@/kit/TextInput.vue'
import SelectButton from 'primevue/selectbutton'
import { computed, ref } from 'vue'
import type { Site } from '@/api/client'
import ClimateChart from './ClimateChart.vue'
import SiteDialog from './SiteDialog.vue'
import { useAttempt } from '@/kit/useAttempt'
import { useSay } from '@/words/useSay'
import LatelyList from '@/kit/LatelyList.vue'
import { useSites } from './useSites'
import { usePerson } from './person'

/** Units and decimals of the person, and the sites. */
const say = useSay()
const { t } = say
const person = usePerson()
const { undoable } = useAttempt()
const { sites, site, open, remove } = useSites()

const editing = ref<Site | null>(null)
const isOpen = ref(false)

const units = computed(() => [
  { value: 'metric', label: t('settings.metric') },
  { value: 'us', label: t('settings.us') },
])
const decimals = computed(() => [
  { value: 'device', label: t('settings.device') },
  { value: 'point', label: '1.5' },
  { value: 'comma', label: '1,5' },
])
const sample = computed(() =>
  t('settings.sample', {
    mass: say.of(12.5, 'mass'),
    volume: say.of(70, 'volume'),
    heap: say.heap(1450),
    length: say.of(110, 'length'),
    warmth: say.of(55, 'temperature'),
  }),
)

function factsOf({ id, altitude_m }: Site): string {
  const facts = [
    altitude_m == null ? '' : say.of(altitude_m, 'altitude'),
    id === site.value?.id ? t('sites.isOpen') : '',
  ]
  return facts.filter(Boolean).join(', ')
}

function edit(one: Site | null) {
  editing.value = one
  isOpen.value = true
}

function takeOff(one: Site) {
  void undoable(
    t('sites.removed', { name: one.name }),
    () => remove.mutateAsync(one.id),
    { what: 'sites', id: one.id },
    t('stock.back', { name: one.name }),
  )
}
</script>

<template>
  <h1>{{ t('settings.title') }}</h1>
  <div class="columns">
    <section :aria-label="t('settings.units')">
      <h2 class="ruled">{{ t('settings.units') }}</h2>
      <div class="choice">
        <span id="units-label">{{ t('settings.measure') }}</span>
        <SelectButton
          v-model="person.units"
          :options="units"
          option-label="label"
          option-value="value"
          :allow-empty="false"
          aria-labelledby="units-label"
        />
      </div>
      <div class="choice">
        <span id="decimals-label">{{ t('settings.decimals') }}</span>
        <SelectButton
          v-model="person.decimals"
          :options="decimals"
          option-label="label"
          option-value="value"
          :allow-empty="false"
          aria-labelledby="decimals-label"
        />
      </div>
      <div class="choice">
        <label for="currency">{{ t('settings.currency') }}</label>
        <TextInput id="currency" v-model="person.currency" :maxlength="8" />
      </div>
      <p class="sample">{{ sample }}</p>
      <p class="quiet small">{{ t('settings.unitsHint') }}</p>
    </section>
    <section :aria-label="t('sites.title')">
      <header class="ruled">
        <h2>{{ t('sites.title') }}</h2>
      </header>
      <ul>
        <li v-for="one in sites" :key="one.id">
          <div class="head">
            <div>
              <b>{{ one.name }}</b>
              <span class="quiet small">
                {{ factsOf(one) }}
              </span>
            </div>
            <div class="row-acts">
              <button
                v-if="one.id !== site?.id"
                type="button"
                class="word-act"
                :aria-label="t('sites.openNamed', { name: one.name })"
                @click="open(one.id)"
              >
                {{ t('sites.openIt') }}
              </button>
              <button
                data-deed="keep"
                type="button"
                class="word-act"
                :aria-label="t('stock.editNamed', { name: one.name })"
                @click="edit(one)"
              >
                {{ t('stock.edit') }}
              </button>
              <button
                v-if="sites.length > 1"
                data-deed="keep"
                type="button"
                class="word-act"
                :aria-label="t('stock.removeNamed', { name: one.name })"
                @click="takeOff(one)"
              >
                {{ t('stock.remove') }}
              </button>
            </div>
          </div>
          <ClimateChart v-if="one.climate" :months="one.climate" />
          <p v-else class="quiet small">{{ t('sites.noClimate') }}</p>
        </li>
      </ul>
      <ActButton data-deed="keep" variant="outlined" :label="t('sites.add')" @click="edit(null)" />
      <p>
        <RouterLink to="/follows" class="row-link">{{ t('school.title') }}</RouterLink>
      </p>
    </section>
    <section :aria-label="t('lately.title')">
      <h2>{{ t('lately.title') }}</h2>
      <LatelyList />
    </section>
  </div>
  <SiteDialog v-model:open="isOpen" :site="editing" />
</template>

<style scoped>
.choice {
  margin-top: 14px;
}

.row-link {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}

.choice > span,
.choice > label {
  display: block;
  margin-bottom: 4px;
  font-weight: 600;
}

.choice :deep(.p-togglebutton) {
  min-height: 46px;
}

.sample {
  margin: 16px 0 6px;
  font-size: 1.125rem;
}

section li {
  padding: 10px 0 14px;
  border-bottom: 1px solid var(--line);
}

section li + li,
ul + :deep(.act-button) {
  margin-top: 8px;
}

.head {
  display: flex;
  justify-content: space-between;
  gap: 14px;
  align-items: center;
}

.head b,
.head .small {
  display: block;
}

.row-acts {
  display: flex;
  gap: 16px;
}
</style>
