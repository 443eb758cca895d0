<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, onMounted, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute, useRouter } from 'vue-router'
import { answered, api } from '@/api/client'
import { device as deviceName } from '@/api/device'
import { key } from '@/api/keys'
import ActButton from '@/kit/ActButton.vue'
import FormField from '@/kit/FormField.vue'
import { fieldAmong } from '@/kit/refusals'
import TextInput from '@/kit/TextInput.vue'
import { useRefusals } from '@/kit/useRefusals'
import { signedOut } from '@/api/door'
import PassphraseInput from './PassphraseInput.vue'
import { useDoor } from './useDoor'

/** The door: by a code that somebody gave, or by name and passphrase. */
const { t } = useI18n()
const route = useRoute()
const router = useRouter()
const { signIn, anew } = useDoor()
const { faults, tried, forget } = useRefusals(
  'people.stale',
  (path) => fieldAmong('code', 'name', 'passphrase')(path) ?? (by.value === 'code' ? 'code' : 'passphrase'),
)

const by = ref<'code' | 'passphrase'>('code')
const code = ref('')
const name = ref('')
const passphrase = ref('')
const device = ref(deviceName())
const pending = ref(false)

// A link that somebody gave has the code behind its `#`; there it stays out of every log.
const invited = computed(() => route.path === '/join')
onMounted(() => {
  if (route.hash.length > 1) {
    code.value = decodeURIComponent(route.hash.slice(1))
    history.replaceState(history.state, '', route.path)
  }
})

const { data: door } = useQuery({
  queryKey: key('door'),
  queryFn: ({ signal }) => answered(api.GET('/api/sign-in', { signal })),
})
const onwards = () => {
  const to = route.query.to
  return typeof to === 'string' && to.startsWith('/') && !to.startsWith('//') ? to : '/'
}
// Nobody was made yet, or somebody is in already: there is nothing to do here.
watch([door, signedOut], () => {
  if (door.value && !door.value.has_people && !invited.value) void router.replace('/')
})

function other() {
  by.value = by.value === 'code' ? 'passphrase' : 'code'
  forget()
}

async function come() {
  const shown =
    by.value === 'code' ? { code: code.value } : { name: name.value, passphrase: passphrase.value }
  pending.value = true
  const done = await tried(() => signIn(shown, device.value))
  pending.value = false
  passphrase.value = ''
  if (done) anew(onwards())
}
</script>

<template>
  <section class="door">
    <h1>{{ t(invited ? 'people.invited' : 'people.signIn') }}</h1>
    <p v-if="by === 'code'" class="quiet">{{ t(invited ? 'people.invitedHint' : 'people.codeHint') }}</p>
    <form novalidate @submit.prevent="come">
      <template v-if="by === 'code'">
        <FormField id="door-code" v-slot="{ invalid, described }" field="code" :label="t('people.code')">
          <TextInput
            id="door-code"
            v-model="code"
            fluid
            class="code"
            :maxlength="20"
            :invalid="invalid"
            :aria-describedby="described"
            autocomplete="one-time-code"
            autocapitalize="characters"
            spellcheck="false"
            autofocus
          />
        </FormField>
      </template>
      <template v-else>
        <FormField id="door-name" v-slot="{ invalid }" field="name" :label="t('people.name')">
          <TextInput
            id="door-name"
            v-model="name"
            fluid
            :maxlength="80"
            :invalid="invalid"
            autocomplete="username"
          />
        </FormField>
        <FormField
          id="door-passphrase"
          v-slot="{ invalid, described }"
          field="passphrase"
          :label="t('people.passphrase')"
        >
          <PassphraseInput
            id="door-passphrase"
            v-model="passphrase"
            :invalid="invalid"
            :described="described"
          />
        </FormField>
      </template>
      <FormField id="door-device" field="device" :label="t('people.device')" :hint="t('people.deviceHint')">
        <TextInput id="door-device" v-model="device" fluid :maxlength="60" autocomplete="off" />
      </FormField>
      <p v-if="faults.whole" class="fault" role="alert">{{ faults.whole }}</p>
      <ActButton type="submit" :label="t('people.come')" :loading="pending" />
    </form>
    <button type="button" class="word-act" @click="other">
      {{ t(by === 'code' ? 'people.byPassphrase' : 'people.byCode') }}
    </button>
    <p class="quiet small">{{ t('people.lost') }}</p>
  </section>
</template>

<style scoped>
.door {
  max-width: 420px;
  margin: 4vh auto 0;
}

form {
  margin: 18px 0 8px;
}

.code {
  font-size: 1.375rem;
  letter-spacing: 0.08em;
  text-transform: uppercase;
}
</style>
