<script setup lang="ts">
import { ref } from 'vue'
import type { Person } from '@/api/client'
import FormDialog from '@/kit/FormDialog.vue'
import FormField from '@/kit/FormField.vue'
import { fieldAmong } from '@/kit/refusals'
import { useHalfTyped } from '@/kit/useHalfTyped'
import { useRefusals } from '@/kit/useRefusals'
import { useSlip } from '@/kit/useSlip'
import { useSay } from '@/words/useSay'
import PassphraseInput from './PassphraseInput.vue'
import { useDoor } from './useDoor'

/** One's own passphrase; what was typed is not kept when the form is put away. */
const { person } = defineProps<{ person: Person }>()
const open = defineModel<boolean>('open', { required: true })
const { t } = useSay()
const { setPassphrase } = useDoor()
const slip = useSlip()
const { faults, forget, tried } = useRefusals('people.stale', fieldAmong('old', 'new'))

const before = ref('')
const after = ref('')
const pending = ref(false)

function begin() {
  forget()
  before.value = after.value = ''
}
const { ended } = useHalfTyped(
  () => open.value,
  () => String(Date.now()),
  begin,
)

async function save() {
  pending.value = true
  const old = person.has_passphrase ? { old: before.value } : {}
  await tried(async () => {
    await setPassphrase({ ...old, new: after.value })
    begin()
    ended()
    open.value = false
    slip.said({ text: t('people.passphraseIsSet') })
  })
  pending.value = false
}
</script>

<template>
  <FormDialog
    v-model:open="open"
    :header="t(person.has_passphrase ? 'people.changePassphrase' : 'people.setPassphrase')"
    :does="t('lot.save')"
    :fault="faults.whole"
    :pending="pending"
    @save="save"
    @cancel="ended"
  >
    <!-- For what keeps passphrases: whose it is. -->
    <input :value="person.name" type="text" autocomplete="username" hidden readonly />
    <FormField
      v-if="person.has_passphrase"
      id="passphrase-old"
      v-slot="{ invalid, described }"
      field="old"
      :label="t('people.oldPassphrase')"
    >
      <PassphraseInput id="passphrase-old" v-model="before" :invalid="invalid" :described="described" />
    </FormField>
    <FormField
      id="passphrase-new"
      v-slot="{ invalid, described }"
      field="new"
      :label="t('people.newPassphrase')"
      :hint="t('people.passphraseHint')"
    >
      <PassphraseInput id="passphrase-new" v-model="after" :invalid="invalid" :described="described" is-new />
    </FormField>
    <p class="quiet small">{{ t('people.signsOut') }}</p>
  </FormDialog>
</template>
