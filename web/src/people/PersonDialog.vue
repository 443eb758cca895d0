<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Person, PersonFields, Role } from '@/api/client'
import { useSite } from '@/farm/useFarm'
import FormDialog from '@/kit/FormDialog.vue'
import FormField from '@/kit/FormField.vue'
import { fieldAmong } from '@/kit/refusals'
import TextInput from '@/kit/TextInput.vue'
import { formOf, useHalfTyped } from '@/kit/useHalfTyped'
import { useRefusals } from '@/kit/useRefusals'
import { useSay } from '@/words/useSay'
import { useMe } from './useMe'
import { usePeople } from './usePeople'

/** Somebody: what they are called, what they are, and at which sites. */
const { person } = defineProps<{ person: Person | null }>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ made: [made: { person: Person; code: unknown }] }>()

const { t } = useSay()
const { sites } = useSite()
const { mayGovern } = useMe()
const { create, change } = usePeople()
const { faults, forget, tried } = useRefusals('people.stale', fieldAmong('name', 'role', 'sites'))

const name = ref('')
const role = ref<Role>('worker')
const given = ref<string[]>([])

const roles = computed<Role[]>(() =>
  mayGovern.value ? ['owner', 'trainer', 'worker', 'guest'] : ['worker', 'guest'],
)

function begin() {
  forget()
  name.value = person?.name ?? ''
  role.value = person?.role ?? 'worker'
  const only = sites.value.length === 1 ? [sites.value[0]!.id] : []
  given.value = person?.sites?.slice() ?? only
}
const { ended } = useHalfTyped(
  () => open.value,
  () => formOf(person),
  begin,
)

async function save() {
  if (!name.value.trim()) {
    faults.name = t('save.needName')
    return
  }
  const fields: PersonFields = { name: name.value, role: role.value, sites: given.value }
  await tried(async () => {
    if (person) await change.mutateAsync({ id: person.id, version: person.version, person: fields })
    else {
      const made = await create.mutateAsync(fields)
      emit('made', { person: made.person, code: made.invitation })
    }
    ended()
    open.value = false
  })
}
</script>

<template>
  <FormDialog
    v-model:open="open"
    :header="t(person ? 'people.change' : 'people.letIn')"
    :does="t(person ? 'lot.save' : 'people.makeCode')"
    :fault="faults.whole"
    :pending="create.isPending.value || change.isPending.value"
    @save="save"
    @cancel="ended"
  >
    <FormField
      id="person-name"
      v-slot="{ invalid }"
      field="name"
      :label="t('people.name')"
      :hint="t('people.nameHint')"
    >
      <TextInput
        id="person-name"
        v-model="name"
        fluid
        :maxlength="80"
        :invalid="invalid"
        autocomplete="off"
        autofocus
      />
    </FormField>
    <fieldset>
      <legend>{{ t('people.role') }}</legend>
      <label v-for="one in roles" :key="one" class="check">
        <input v-model="role" type="radio" name="person-role" :value="one" />
        <span>
          <b>{{ t(`role.${one}`) }}:</b> {{ t(`people.roleMeans.${one}`) }}
        </span>
      </label>
      <p v-if="faults.role" class="fault" role="alert">{{ faults.role }}</p>
    </fieldset>
    <fieldset v-if="role !== 'owner'">
      <legend>{{ t('people.sites') }}</legend>
      <label v-for="one in sites" :key="one.id" class="check">
        <input v-model="given" type="checkbox" :value="one.id" />
        <span>{{ one.name }}</span>
      </label>
      <p v-if="faults.sites" class="fault" role="alert">{{ faults.sites }}</p>
    </fieldset>
  </FormDialog>
</template>

<style scoped>
fieldset {
  margin: 14px 0 0;
  padding: 0;
  border: 0;
}

legend {
  padding: 0;
  font-weight: 600;
}

b::first-letter {
  text-transform: uppercase;
}
</style>
