<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { answered, api } from '@/api/client'
import { device as deviceName } from '@/api/device'
import { key } from '@/api/keys'
import ActButton from '@/kit/ActButton.vue'
import FormField from '@/kit/FormField.vue'
import { fieldAmong } from '@/kit/refusals'
import TextInput from '@/kit/TextInput.vue'
import { useRefusals } from '@/kit/useRefusals'
import { useSay } from '@/words/useSay'
import PassphraseInput from './PassphraseInput.vue'
import { useDoor } from './useDoor'

/** Nobody was made yet: what that means, and how to become the first owner. */
const { t } = useSay()
const { first, anew } = useDoor()
const { faults, tried } = useRefusals('people.stale', fieldAmong('name', 'passphrase'))

const name = ref('')
const passphrase = ref('')
const device = ref(deviceName())
const pending = ref(false)

const { data: door } = useQuery({
  queryKey: key('door'),
  queryFn: ({ signal }) => answered(api.GET('/api/sign-in', { signal })),
})

async function begin() {
  pending.value = true
  const done = await tried(() => first({ name: name.value, passphrase: passphrase.value }, device.value))
  pending.value = false
  if (done) anew('/people')
}
</script>

<template>
  <section class="first">
    <p>{{ t('people.open') }}</p>
    <p>{{ t('people.firstMeans') }}</p>
    <p v-if="door && !door.may_make_first" class="fault">{{ t('people.firstElsewhere') }}</p>
    <form v-else novalidate @submit.prevent="begin">
      <FormField
        id="first-name"
        v-slot="{ invalid }"
        field="name"
        :label="t('people.yourName')"
        :hint="t('people.nameHint')"
      >
        <TextInput
          id="first-name"
          v-model="name"
          fluid
          :maxlength="80"
          :invalid="invalid"
          autocomplete="username"
        />
      </FormField>
      <FormField
        id="first-passphrase"
        v-slot="{ invalid, described }"
        field="passphrase"
        :label="t('people.passphrase')"
        :hint="t('people.passphraseHint')"
      >
        <PassphraseInput
          id="first-passphrase"
          v-model="passphrase"
          :invalid="invalid"
          :described="described"
          is-new
        />
      </FormField>
      <FormField id="first-device" field="device" :label="t('people.device')" :hint="t('people.deviceHint')">
        <TextInput id="first-device" v-model="device" fluid :maxlength="60" autocomplete="off" />
      </FormField>
      <p v-if="faults.whole" class="fault" role="alert">{{ faults.whole }}</p>
      <ActButton type="submit" :label="t('people.beFirst')" :loading="pending" />
    </form>
  </section>
</template>

<style scoped>
.first {
  max-width: 560px;
}

.first > p {
  margin: 10px 0;
}

form {
  max-width: 420px;
  margin-top: 18px;
}
</style>
