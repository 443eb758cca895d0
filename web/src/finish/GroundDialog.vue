<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import type { GroundFields, GroundTold } from '@/api/client'
import FormDialog from '@/kit/FormDialog.vue'
import FormField from '@/kit/FormField.vue'
import NumberField from '@/kit/NumberField.vue'
import TextInput from '@/kit/TextInput.vue'
import { fieldAmong } from '@/kit/refusals'
import { formOf, useHalfTyped } from '@/kit/useHalfTyped'
import { useRefusals } from '@/kit/useRefusals'
import { useSay } from '@/words/useSay'
import { GROUND_KINDS, isCounted } from './grounds'
import { useFinish } from './useFinish'

/** A bed, a field, trees: where compost goes. */
const { ground } = defineProps<{ ground: GroundTold | null }>()
const open = defineModel<boolean>('open', { required: true })
const { t } = useSay()
const { addGround, changeGround } = useFinish()
const { faults, forget, tried } = useRefusals(
  'measures.stale',
  fieldAmong('name', 'kind', 'area_m2', 'count', 'crop', 'harvest_on'),
)

const EMPTY: GroundFields = {
  name: '',
  kind: 'bed',
  area_m2: null,
  count: null,
  crop: null,
  touches_soil: true,
  is_eaten_raw: false,
  harvest_on: null,
}
const form = reactive({
  ...EMPTY,
  area: null as number | null,
  many: null as number | null,
  crop: '',
  harvest: '',
})
const isPending = ref(false)
const counted = computed(() => isCounted(form.kind))
const { ended } = useHalfTyped(
  () => open.value,
  () => formOf(ground),
  () => {
    forget()
    const of = ground ?? EMPTY
    Object.assign(form, {
      name: of.name,
      kind: of.kind,
      area: of.area_m2 ?? null,
      many: of.count ?? null,
      crop: of.crop ?? '',
      touches_soil: of.touches_soil,
      is_eaten_raw: of.is_eaten_raw,
      harvest: of.harvest_on ?? '',
    })
  },
)
async function save() {
  if (isPending.value) return
  isPending.value = true
  const fields: GroundFields = {
    name: form.name,
    kind: form.kind,
    area_m2: counted.value ? null : form.area,
    count: counted.value ? form.many : null,
    crop: form.crop.trim() || null,
    touches_soil: form.touches_soil,
    is_eaten_raw: form.is_eaten_raw,
    harvest_on: form.harvest || null,
  }
  const done = await tried(() => (ground ? changeGround(ground, fields) : addGround(fields)))
  isPending.value = false
  if (!done) return
  ended()
  open.value = false
}
</script>

<template>
  <FormDialog
    v-model:open="open"
    :header="ground ? t('ground.change', { name: ground.name }) : t('ground.new')"
    :does="t('ground.does')"
    :fault="faults.whole"
    :pending="isPending"
    :disabled="!form.name.trim()"
    @save="save"
    @cancel="ended"
  >
    <FormField id="ground-name" field="name" :label="t('ground.name')">
      <TextInput id="ground-name" v-model="form.name" class="full" autofocus />
    </FormField>
    <FormField id="ground-kind" field="kind" :label="t('ground.what')">
      <select id="ground-kind" v-model="form.kind" class="full">
        <option v-for="kind in GROUND_KINDS" :key="kind" :value="kind">{{ t(`ground.kind.${kind}`) }}</option>
      </select>
    </FormField>
    <FormField v-if="counted" id="ground-count" field="count" :label="t('apply.field.count')">
      <NumberField id="ground-count" v-model="form.many" class="full" :max="1e7" empty />
    </FormField>
    <FormField v-else id="ground-area" field="area_m2" :label="t('apply.field.area_m2')">
      <NumberField id="ground-area" v-model="form.area" class="full" :max="1e7" empty />
    </FormField>
    <FormField id="ground-crop" field="crop" :label="t('ground.crop')">
      <TextInput id="ground-crop" v-model="form.crop" class="full" />
    </FormField>
    <label class="check"
      ><input v-model="form.touches_soil" type="checkbox" /> {{ t('ground.touches') }}</label
    >
    <label class="check"><input v-model="form.is_eaten_raw" type="checkbox" /> {{ t('ground.raw') }}</label>
    <FormField id="ground-harvest" field="harvest_on" :label="t('ground.harvest')">
      <input id="ground-harvest" v-model="form.harvest" type="date" class="full" />
    </FormField>
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
  flex: none;
  width: 22px;
  height: 22px;
}
</style>
