<script setup lang="ts">
import type { FormulateShare, Kind } from '@/api/client'
import { computed, ref } from 'vue'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import { useLimits } from '@/api/useLimits'
import NumberField from '@/kit/NumberField.vue'
import { useNames } from '@/farm/useFarm'
import { useSay } from '@/words/useSay'
import type { Offer, PinKind } from './choices'
import { PLENTY_L, useWants } from './wants'

/** What is wanted of a mix: its size, in which steps, how sure, and what of each lot must go in. */
const { offers, held } = defineProps<{
  offers: Offer[]
  /** The small doses that the mixes are held to. */
  held: FormulateShare[]
}>()

const say = useSay()
const limits = useLimits()
const { t } = say
const { wants, pin } = useWants()
const { hatchOf } = useNames()

const least = computed({
  get: () => wants.size[0],
  set: (litres: number | null) => (wants.size = [litres ?? 0, Math.max(litres ?? 0, wants.size[1], 1)]),
})
const most = computed({
  get: () => wants.size[1],
  set: (litres: number | null) => {
    const high = litres || Math.max(wants.size[0], PLENTY_L)
    wants.size = [Math.min(wants.size[0], high), high]
  },
})

const PINS: (PinKind | 'fits')[] = ['fits', 'all', 'exact', 'least', 'out']
const rows = computed(() =>
  offers.map(({ lot }) => ({
    lot,
    name: say.nameOf(lot.material, lot.label),
    hatch: hatchOf(lot.material),
    onHand: say.amount(lot.amount, lot.unit, lot.measure_id),
    kind: wants.pins[lot.id]?.kind ?? ('fits' as const),
    amount: wants.pins[lot.id]?.amount ?? null,
    quantity: say.quantityOf(lot.unit) ?? undefined,
    sign: say.unitWord(lot.unit, lot.measure_id, 2),
  })),
)
type Row = (typeof rows.value)[number]

function setKind({ lot, amount }: Row, event: Event) {
  const kind = (event.target as HTMLSelectElement).value as PinKind | 'fits'
  pin(lot.id, kind === 'fits' ? null : { kind, amount: amount ?? lot.amount })
}

function setAmount({ lot, kind }: Row, amount: number | null) {
  if (kind !== 'fits' && amount !== null) pin(lot.id, { kind, amount })
}

const KINDS: Kind[] = ['manure', 'household', 'green', 'brown', 'bulking', 'liquid', 'mineral', 'starter']
const free = computed(() => KINDS.filter((kind) => wants.caps.every((cap) => cap.kind !== kind)))
const newKind = ref<Kind | ''>('')
/** A usual limit for manure and for kitchen stuff; a start to be changed. */
const FIRST_CAP: Partial<Record<Kind, number>> = { manure: 40, household: 20 }
function addCap() {
  if (!newKind.value) return
  wants.caps.push({ kind: newKind.value, most: FIRST_CAP[newKind.value] ?? 50 })
  newKind.value = ''
}

const doses = computed(() =>
  held.map(({ dose, items, most_pct, of_volume }) => ({
    dose,
    materials: [...new Set(items.flatMap((at) => offers[at]?.lot.material ?? []))],
    name: t(`choices.dose.${dose}`),
    words: t('choices.doseOf', {
      name: t(`choices.dose.${dose}`),
      most: say.plain(most_pct),
      of: t(of_volume ? 'reason.ofVolume' : 'reason.ofMass'),
    }),
    most: most_pct,
  })),
)
type Dose = (typeof doses.value)[number]
/** Twice as much to begin with; what is set goes before the dose. */
function raise({ materials, most }: Dose) {
  for (const material of materials) wants.raised.push({ material, most: Math.min(100, most * 2) })
}

const summary = computed(() => {
  const count =
    Object.keys(wants.pins).length +
    wants.caps.length +
    wants.raised.length +
    (wants.mostWater === null ? 0 : 1)
  return count ? t('choices.limitsSet', count) : t('choices.limitsNone')
})
</script>

<template>
  <div class="asked">
    <div class="field">
      <label for="least">{{ t('choices.least', { unit: say.sign('heap') }) }}</label>
      <NumberField
        id="least"
        v-model="least"
        v-bind="limits.of('amount')"
        quantity="heap"
        :step="0.1"
        empty
      />
    </div>
    <div class="field">
      <label for="most">{{ t('choices.most', { unit: say.sign('heap') }) }}</label>
      <NumberField id="most" v-model="most" v-bind="limits.of('amount')" quantity="heap" :step="0.1" empty />
    </div>
    <div class="field">
      <label for="wants-step">{{ t('choices.step') }}</label>
      <select id="wants-step" v-model="wants.step">
        <option v-for="step in ['whole', 'half', 'any']" :key="step" :value="step">
          {{ t(`choices.steps.${step}`) }}
        </option>
      </select>
    </div>
    <label class="check" :title="t('choices.cautiousHint')">
      <input v-model="wants.isCautious" type="checkbox" aria-describedby="cautious-hint" />
      <span
        >{{ t('choices.cautious') }}
        <small id="cautious-hint" class="quiet">{{ t('choices.cautiousHint') }}</small></span
      >
    </label>
  </div>
  <details>
    <summary>
      {{ t('choices.limits') }} <span class="quiet">{{ summary }}</span>
    </summary>
    <div class="limits">
      <ul :aria-label="t('choices.pins')" class="ruled-list">
        <li v-for="row in rows" :key="row.lot.id">
          <HatchSwatch :hatch="row.hatch" :size="30" />
          <span class="lot-name"
            ><b>{{ row.name }}</b>
            <small class="quiet">{{ t('bench.onHand', { amount: row.onHand }) }}</small></span
          >
          <span class="pin">
            <select
              :value="row.kind"
              :aria-label="t('choices.pinOf', { name: row.name })"
              @change="setKind(row, $event)"
            >
              <option v-for="kind in PINS" :key="kind" :value="kind">{{ t(`choices.pin.${kind}`) }}</option>
            </select>
            <span v-if="row.kind === 'exact' || row.kind === 'least'" class="pin-amount">
              <NumberField
                :model-value="row.amount"
                :max="row.lot.amount"
                :quantity="row.quantity"
                :aria-label="t('choices.pinAmount', { name: row.name })"
                @update:model-value="(amount) => setAmount(row, amount)"
              />
              <small>{{ row.sign }}</small>
            </span>
          </span>
        </li>
      </ul>
      <div class="others">
        <h3>{{ t('choices.caps') }}</h3>
        <p v-for="(cap, at) in wants.caps" :key="cap.kind" class="cap">
          <label :for="`cap-${cap.kind}`">{{ t('choices.cap', { kind: t(`kind.${cap.kind}`) }) }}</label>
          <NumberField
            :id="`cap-${cap.kind}`"
            v-model="cap.most"
            v-bind="limits.of('share_pct')"
            :digits="0"
            :step="5"
          />
          <span>%</span>
          <button
            type="button"
            class="word-act"
            :aria-label="t('choices.noCap', { kind: t(`kind.${cap.kind}`) })"
            @click="wants.caps.splice(at, 1)"
          >
            ×
          </button>
        </p>
        <p class="cap">
          <select v-model="newKind" :aria-label="t('choices.newCap')" @change="addCap">
            <option value="">{{ t('choices.newCap') }}</option>
            <option v-for="kind in free" :key="kind" :value="kind">{{ t(`kind.${kind}`) }}</option>
          </select>
        </p>
        <p class="quiet small">{{ t('choices.capHint') }}</p>
        <template v-if="doses.length || wants.raised.length">
          <h3>{{ t('choices.doses') }}</h3>
          <p v-for="dose in doses" :key="dose.dose ?? ''" class="cap">
            <span>{{ dose.words }}</span>
            <button
              type="button"
              class="word-act"
              :aria-label="t('choices.raiseNamed', { name: dose.name })"
              @click="raise(dose)"
            >
              {{ t('choices.raise') }}
            </button>
          </p>
          <p v-for="(one, at) in wants.raised" :key="one.material" class="cap">
            <label :for="`most-${one.material}`">{{
              t('choices.cap', { kind: say.nameOf(one.material) })
            }}</label>
            <NumberField
              :id="`most-${one.material}`"
              v-model="one.most"
              v-bind="limits.of('share_pct')"
              :digits="0"
              :step="5"
            />
            <span>%</span>
            <button
              type="button"
              class="word-act"
              :aria-label="t('choices.noCap', { kind: say.nameOf(one.material) })"
              @click="wants.raised.splice(at, 1)"
            >
              ×
            </button>
          </p>
          <p class="quiet small">{{ t('choices.dosesHint') }}</p>
        </template>
        <div class="field">
          <label for="most-water">{{ t('choices.mostWater', { unit: say.sign('volume') }) }}</label>
          <NumberField
            id="most-water"
            v-model="wants.mostWater"
            v-bind="limits.of('amount')"
            quantity="volume"
            empty
          />
          <p class="quiet small">{{ t('choices.mostWaterHint') }}</p>
        </div>
      </div>
    </div>
  </details>
</template>

<style scoped>
.asked {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 22px;
  align-items: flex-end;
  margin: 14px 0 8px;
}

.asked :deep(input[type='text']) {
  width: 112px;
}

.check small {
  display: block;
}

.check {
  line-height: 1.2;
}

details {
  margin-bottom: 18px;
  border-bottom: 1px solid var(--line);
}

summary {
  min-height: 44px;
  padding: 10px 0;
  font-weight: 600;
  cursor: pointer;
}

summary .quiet {
  font-weight: 400;
}

.limits {
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr);
  gap: 20px 36px;
  padding-bottom: 16px;
}

.limits li {
  display: grid;
  grid-template-columns: 30px minmax(0, 1fr) minmax(150px, auto);
  gap: 12px;
  align-items: center;
  padding: 4px 0;
  line-height: 1.2;
}

.lot-name small {
  display: block;
}

.pin {
  display: flex;
  gap: 8px;
  justify-content: flex-end;
}

.pin select {
  width: auto;
  min-width: 132px;
}

.pin-amount {
  display: flex;
  gap: 6px;
  align-items: center;
}

.pin-amount :deep(input) {
  width: 74px;
}

.cap {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 6px;
}

.cap label {
  flex: 1;
}

.cap :deep(input) {
  width: 74px;
}

.cap .word-act {
  width: 44px;
  text-align: center;
}

h3 {
  font-size: 1rem;
}

.field {
  margin-top: 12px;
}

.asked .field {
  margin: 0;
}

@media (max-width: 859px) {
  .limits {
    grid-template-columns: minmax(0, 1fr);
  }

  .limits li {
    grid-template-columns: 30px minmax(0, 1fr);
  }

  .pin {
    grid-column: 2;
    justify-content: flex-start;
  }
}
</style>
