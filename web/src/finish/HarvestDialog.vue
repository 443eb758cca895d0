<script setup lang="ts">
import { computed, reactive, ref, toRef } from 'vue'
import type { Amount } from '@/api/client'
import FormDialog from '@/kit/FormDialog.vue'
import FormField from '@/kit/FormField.vue'
import NumberField from '@/kit/NumberField.vue'
import TextInput from '@/kit/TextInput.vue'
import { fieldAmong } from '@/kit/refusals'
import { useHalfTyped } from '@/kit/useHalfTyped'
import { useRefusals } from '@/kit/useRefusals'
import { useSlip } from '@/kit/useSlip'
import { useAbout, useMeasureList } from '@/farm/useFarm'
import { atOf, localOf, nowOf } from '@/tend/when'
import { useSay } from '@/words/useSay'
import AmountField from './AmountField.vue'
import { begun, whole } from './amount'
import { useFinish, useOutlook } from './useFinish'

/** Compost is taken out of a heap: how much, through which mesh, what the mesh held back. */
const { heap } = defineProps<{ heap: { id: string; name: string } }>()
const open = defineModel<boolean>('open', { required: true })

const say = useSay()
const { t } = say
const { about } = useAbout()
const { measures } = useMeasureList()
const { harvest, takeHarvestBack } = useFinish()
const slip = useSlip()
const { outlook } = useOutlook(
  toRef(() => heap.id),
  toRef(() => open.value),
)
const { faults, forget, tried } = useRefusals(
  'measures.stale',
  fieldAmong('compost', 'rejects', 'mesh_mm', 'moisture_pct', 'density_kg_l', 'name', 'at'),
)

const compost = ref<Partial<Amount>>({})
const rejects = ref<Partial<Amount>>({})
const of = reactive({
  mesh: '',
  isLast: true,
  name: '',
  moisture: null as number | null,
  density: null as number | null,
  when: '',
})
const isPending = ref(false)
const { ended } = useHalfTyped(
  () => open.value,
  () => heap.id,
  () => {
    forget()
    compost.value = begun(measures.value)
    rejects.value = begun(measures.value)
    Object.assign(of, { mesh: '', isLast: true, name: '', moisture: null, density: null })
    of.when = localOf(nowOf(about.value))
  },
)

/** What should be there, in barrows, and what the farm's own heaps gave of that. */
const expected = computed(() => {
  const told = outlook.value
  if (!told?.expected_l) return ''
  const [likely, low, high] = told.expected_l.map((litres) => Math.max(0, litres - told.taken_l))
  const litres = t('harvest.between', { low: say.litres(round(low!)), high: say.litres(round(high!)) })
  return t('harvest.expected', { bulk: say.bulk(likely!), litres })
})
const own = computed(() => {
  const told = outlook.value?.own
  const [likely] = outlook.value?.expected_l ?? []
  if (!told || likely === undefined) return ''
  const bulk = say.bulk(Math.max(0, (likely * told.share_pct) / 100 - outlook.value!.taken_l))
  const share = say.whole(told.share_pct)
  const [low, high] = told.range_pct.map(say.whole)
  return told.heaps === 1
    ? t('harvest.ownOne', { share, bulk })
    : t('harvest.own', { share, bulk, heaps: told.heaps, low: low!, high: high! })
})
const round = (litres: number) => Number(litres.toPrecision(2))

const isReady = computed(() => whole(compost.value) !== null)
async function save() {
  const amount = whole(compost.value)
  if (!amount || isPending.value) return
  isPending.value = true
  const held = of.mesh ? whole(rejects.value) : null
  const now = nowOf(about.value)
  const done = await tried(async () => {
    const got = await harvest(heap, {
      compost: amount,
      rejects: held,
      rejects_label: t('harvest.rejectsOf', { name: heap.name }).slice(0, 80),
      mesh_mm: of.mesh ? Number(of.mesh) : null,
      is_last: of.isLast,
      name: of.name.trim() || null,
      moisture_pct: of.moisture,
      density_kg_l: of.density,
      at: of.when === localOf(now) ? null : (atOf(of.when) ?? null),
    })
    slip.said({
      text: t('harvest.done', { bulk: say.bulk(got.taken_l), name: heap.name }),
      undoLabel: t('app.undo'),
      undo: () => void takeHarvestBack(got).catch(() => slip.failed(t('harvest.notBack'))),
    })
  })
  isPending.value = false
  if (!done) return
  ended()
  open.value = false
}
</script>

<template>
  <FormDialog
    v-model:open="open"
    :header="t('harvest.title', { name: heap.name })"
    :does="t('harvest.does')"
    :fault="faults.whole"
    :pending="isPending"
    :disabled="!isReady"
    @save="save"
    @cancel="ended"
  >
    <p v-if="expected">{{ expected }} {{ own }}</p>
    <FormField
      id="harvest-compost"
      v-slot="{ invalid, described }"
      field="compost"
      :label="t('harvest.compost')"
    >
      <AmountField
        id="harvest-compost"
        v-model="compost"
        :label="t('harvest.unit')"
        :invalid="invalid"
        :described="described"
        autofocus
      />
    </FormField>
    <FormField id="harvest-mesh" field="mesh_mm" :label="t('harvest.mesh')">
      <select id="harvest-mesh" v-model="of.mesh" class="full">
        <option value="">{{ t('harvest.noMesh') }}</option>
        <option v-for="mm in outlook?.meshes_mm ?? []" :key="mm" :value="String(mm)">
          {{ t(`harvest.meshFor.${mm}`) }}
        </option>
      </select>
    </FormField>
    <FormField
      v-if="of.mesh"
      id="harvest-rejects"
      v-slot="{ invalid, described }"
      field="rejects"
      :label="t('harvest.rejects')"
      :hint="
        t('harvest.rejectsHint', {
          low: outlook?.usual_rejects_pct[0] ?? 5,
          high: outlook?.usual_rejects_pct[1] ?? 25,
        })
      "
    >
      <AmountField
        id="harvest-rejects"
        v-model="rejects"
        :label="t('harvest.rejectsUnit')"
        :invalid="invalid"
        :described="described"
      />
    </FormField>
    <label class="check"><input v-model="of.isLast" type="checkbox" /> {{ t('harvest.isLast') }}</label>
    <details>
      <summary>{{ t('harvest.more') }}</summary>
      <FormField id="harvest-when" field="at" :label="t('harvest.when')">
        <input
          id="harvest-when"
          v-model="of.when"
          type="datetime-local"
          class="full"
          :max="localOf(nowOf(about))"
        />
      </FormField>
      <FormField id="harvest-name" field="name" :label="t('harvest.name')">
        <TextInput id="harvest-name" v-model="of.name" class="full" :placeholder="heap.name" />
      </FormField>
      <FormField
        id="harvest-moisture"
        field="moisture_pct"
        :label="t('harvest.moisture')"
        :hint="outlook ? t('harvest.else', { value: `${say.whole(outlook.moisture_pct)} %` }) : ''"
      >
        <NumberField id="harvest-moisture" v-model="of.moisture" class="full" :max="95" empty />
      </FormField>
      <FormField
        id="harvest-density"
        field="density_kg_l"
        :label="t('apply.field.density_kg_l', { unit: say.sign('density') })"
        :hint="outlook ? t('harvest.else', { value: say.of(outlook.density_kg_l, 'density') }) : ''"
      >
        <NumberField
          id="harvest-density"
          v-model="of.density"
          class="full"
          quantity="density"
          :min="0.1"
          :max="1.6"
          empty
        />
      </FormField>
    </details>
    <p class="quiet small">{{ t('harvest.care') }}</p>
  </FormDialog>
</template>

<style scoped>
.check {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}

.check input {
  width: 22px;
  height: 22px;
}

summary {
  min-height: 44px;
  padding: 10px 0;
  cursor: pointer;
}
</style>
