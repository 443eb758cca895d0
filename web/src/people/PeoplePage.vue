<script lang="ts">
import { later } from '@/kit/later'

const personForm = later(() => import('./PersonDialog.vue'))
const invite = later(() => import('./InviteDialog.vue'))
const passphraseForm = later(() => import('./PassphraseDialog.vue'))
const leaving = later(() => import('./LeaveDialog.vue'))
</script>

<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Invitation, Person } from '@/api/client'
import { useOutbox } from '@/api/outbox/useOutbox'
import { useSite } from '@/farm/useFarm'
import ActButton from '@/kit/ActButton.vue'
import StateNote from '@/kit/StateNote.vue'
import { useAttempt } from '@/kit/useAttempt'
import { useSlip } from '@/kit/useSlip'
import { useSay } from '@/words/useSay'
import FirstOwner from './FirstOwner.vue'
import NetworkNote from './NetworkNote.vue'
import { useDoor } from './useDoor'
import { useMe } from './useMe'
import { usePeople } from './usePeople'

/** Who is on this farm, what they may do, and on which devices they are signed in. */
const { part: PersonDialog } = personForm
const { part: InviteDialog } = invite
const { part: PassphraseDialog } = passphraseForm
const say = useSay()
const { t } = say
const { me, mayLetIn, mayGovern } = useMe()
const { sites } = useSite()
const { people, error, refetch, remove, makeCode, withdraw, cutOff } = usePeople()
const { signOut, anew } = useDoor()
const outbox = useOutbox()
const isLeaving = ref(false)
const { part: LeaveDialog } = leaving
const { attempt, undoable } = useAttempt()
const slip = useSlip()

const editing = ref<Person | null>(null)
const isFormOpen = ref(false)
const invitation = ref<Invitation | null>(null)
const invited = ref('')
const isInviteOpen = ref(false)
const isPassphraseOpen = ref(false)

const you = computed(() => people.value?.find(({ is_you }) => is_you) ?? null)
const others = computed(() => people.value?.filter(({ is_you }) => !is_you) ?? [])

const siteName = (id: string) => sites.value.find((one) => one.id === id)?.name ?? ''
function whereOf({ role, sites: given = [] }: Person): string {
  const where = role === 'owner' ? t('people.everywhere') : given.map(siteName).filter(Boolean).join(', ')
  return [t(`role.${role}`), where].filter(Boolean).join(', ')
}

async function edit(one: Person | null) {
  // What the form gives way to is there before it does.
  await Promise.all([personForm.fetch(), invite.fetch()])
  editing.value = one
  isFormOpen.value = true
}
function show(made: Invitation, name: string) {
  invitation.value = made
  invited.value = name
  isInviteOpen.value = true
}
async function code({ id, name }: Person) {
  await attempt(async () => {
    await invite.fetch()
    show(await makeCode.mutateAsync(id), name)
  })
}
async function changePassphrase() {
  await passphraseForm.fetch()
  isPassphraseOpen.value = true
}
function takeOff({ id, name }: Person) {
  void undoable(
    t('people.removed', { name }),
    () => remove.mutateAsync(id),
    { what: 'people', id },
    t('people.back', { name }),
  )
}
async function cut(person: Person, device: Person['devices'][number]) {
  const done = await attempt(() => cutOff.mutateAsync({ id: person.id, device: device.id }))
  if (done) slip.said({ text: t('people.cutOff', { device: device.device || t('people.someDevice') }) })
}
async function leave(isSure = false) {
  if (!isSure && outbox.waiting.length) {
    await leaving.fetch()
    isLeaving.value = true
    return
  }
  if (await attempt(() => signOut())) anew('/sign-in')
}
</script>

<template>
  <h1>{{ t('nav.people') }}</h1>
  <FirstOwner v-if="me && !me.id" />
  <StateNote v-else-if="error || !people" :error="error" @retry="refetch" />
  <template v-else>
    <section v-if="you" :aria-label="t('people.you')" class="you">
      <header class="ruled">
        <h2>{{ you.name }}</h2>
        <span class="quiet">{{ whereOf(you) }}</span>
      </header>
      <ul class="devices">
        <li v-for="device in you.devices" :key="device.id">
          <span>
            {{ device.device || t('people.someDevice') }}
            <b v-if="device.is_this">{{ t('people.thisDevice') }}</b>
          </span>
          <span class="quiet small">{{ t('people.seen', { time: say.time(device.seen_at) }) }}</span>
          <button v-if="!device.is_this" type="button" class="word-act" @click="cut(you, device)">
            {{ t('people.cut') }}
          </button>
        </li>
      </ul>
      <div class="acts">
        <ActButton variant="outlined" :label="t('people.otherDevice')" @click="code(you)" />
        <ActButton
          variant="outlined"
          :label="t(you.has_passphrase ? 'people.changePassphrase' : 'people.setPassphrase')"
          @click="changePassphrase"
        />
        <ActButton variant="outlined" :label="t('people.signOut')" @click="leave()" />
      </div>
    </section>
    <section v-if="mayLetIn" :aria-label="t('people.others')">
      <header class="ruled">
        <h2>{{ t('people.others') }}</h2>
        <RouterLink v-if="mayGovern" to="/comings">{{ t('people.comings') }}</RouterLink>
      </header>
      <p v-if="!others.length" class="quiet">{{ t('people.nobody') }}</p>
      <ul class="others">
        <li v-for="one in others" :key="one.id">
          <div class="head">
            <div>
              <b>{{ one.name }}</b>
              <span class="quiet small">{{ whereOf(one) }}</span>
            </div>
            <div class="row-acts">
              <button
                type="button"
                class="word-act"
                :aria-label="t('people.codeNamed', { name: one.name })"
                @click="code(one)"
              >
                {{ t('people.makeCode') }}
              </button>
              <button
                type="button"
                class="word-act"
                :aria-label="t('stock.editNamed', { name: one.name })"
                @click="edit(one)"
              >
                {{ t('stock.edit') }}
              </button>
              <button
                type="button"
                class="word-act"
                :aria-label="t('stock.removeNamed', { name: one.name })"
                @click="takeOff(one)"
              >
                {{ t('stock.remove') }}
              </button>
            </div>
          </div>
          <p v-if="one.code_until" class="small waits">
            {{ t('people.codeUntil', { time: say.time(one.code_until) }) }}
            <button type="button" class="word-act" @click="attempt(() => withdraw.mutateAsync(one.id))">
              {{ t('people.withdraw') }}
            </button>
          </p>
          <p v-else-if="!one.devices.length" class="quiet small">{{ t('people.noDevice') }}</p>
          <ul class="devices">
            <li v-for="device in one.devices" :key="device.id">
              <span>{{ device.device || t('people.someDevice') }}</span>
              <span class="quiet small">{{ t('people.seen', { time: say.time(device.seen_at) }) }}</span>
              <button
                type="button"
                class="word-act"
                :aria-label="t('people.cutNamed', { device: device.device, name: one.name })"
                @click="cut(one, device)"
              >
                {{ t('people.cut') }}
              </button>
            </li>
          </ul>
        </li>
      </ul>
      <ActButton :label="t('people.letIn')" @click="edit(null)" />
    </section>
    <NetworkNote v-if="mayLetIn" />
  </template>
  <component
    :is="PersonDialog"
    v-if="PersonDialog"
    v-model:open="isFormOpen"
    :person="editing"
    @made="(made: { person: Person; code: Invitation }) => show(made.code, made.person.name)"
  />
  <component
    :is="InviteDialog"
    v-if="InviteDialog && invitation"
    v-model:open="isInviteOpen"
    :invitation="invitation"
    :name="invited"
  />
  <component :is="LeaveDialog" v-if="LeaveDialog" v-model:open="isLeaving" @leave="leave(true)" />
  <component
    :is="PassphraseDialog"
    v-if="PassphraseDialog && you"
    v-model:open="isPassphraseOpen"
    :person="you"
  />
</template>

<style scoped>
section {
  max-width: 820px;
  margin-bottom: 34px;
}

.others > li {
  padding: 10px 0 12px;
  border-bottom: 1px solid var(--line);
}

.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 2px 14px;
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

.devices li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  align-items: center;
  min-height: 44px;
}

.devices b {
  font-weight: 600;
  margin-left: 6px;
}

.waits {
  margin: 2px 0;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin-top: 10px;
}

.others + :deep(.act-button) {
  margin-top: 16px;
}
</style>
