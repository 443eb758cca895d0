<script setup lang="ts">
import { computed } from 'vue'
import type { Invitation } from '@/api/client'
import ActButton from '@/kit/ActButton.vue'
import FrameDialog from '@/kit/FrameDialog.vue'
import { useSlip } from '@/kit/useSlip'
import { useSay } from '@/words/useSay'
import QrPicture from './QrPicture.vue'

/** A code that lets somebody in: for a camera, to be read out, or to be sent. It is shown this once. */
const { invitation, name } = defineProps<{ invitation: Invitation; name: string }>()
const open = defineModel<boolean>('open', { required: true })
const { t, time } = useSay()
const slip = useSlip()

/** Opened on this machine under its own name, a link leads nobody else here. */
const isHereOnly = computed(() => /^https?:\/\/(127\.|localhost|\[::1\])/.test(invitation.link))

async function copy() {
  await navigator.clipboard.writeText(invitation.link)
  slip.said({ text: t('people.copied') })
}
</script>

<template>
  <FrameDialog v-model:visible="open" class="invite-dialog" :header="t('people.codeFor', { name })">
    <p v-if="isHereOnly" class="here-only">{{ t('people.hereOnly') }}</p>
    <details v-if="invitation.trust" class="trust">
      <summary>{{ t('people.firstTime') }}</summary>
      <p class="quiet">{{ t('people.firstTimeHow') }}</p>
      <QrPicture :rows="invitation.trust.qr.rows" :label="t('people.qr', { link: invitation.trust.link })" />
      <p class="link">{{ invitation.trust.link }}</p>
    </details>
    <div class="sheet">
      <QrPicture :rows="invitation.qr.rows" :label="t('people.qr', { link: invitation.link })" />
      <div>
        <p class="quiet">{{ t('people.readOut') }}</p>
        <p class="code">{{ invitation.code }}</p>
        <p class="link">{{ invitation.link.split('#')[0] }}</p>
        <p class="quiet small">{{ t('people.onceUntil', { time: time(invitation.until) }) }}</p>
        <ActButton variant="outlined" :label="t('people.copyLink')" @click="copy" />
      </div>
    </div>
  </FrameDialog>
</template>

<style>
.invite-dialog.p-dialog {
  width: min(640px, calc(100vw - 16px));
}
</style>

<style scoped>
.sheet {
  display: flex;
  flex-wrap: wrap;
  gap: 20px 28px;
  align-items: center;
}

.sheet > div {
  flex: 1 1 240px;
}

.code {
  margin: 2px 0 6px;
  font-size: 2rem;
  font-weight: 650;
  letter-spacing: 0.06em;
  line-height: 1.1;
}

.link {
  overflow-wrap: anywhere;
}

.trust {
  margin-bottom: 14px;
}

.trust summary {
  min-height: 44px;
  padding-top: 10px;
  font-weight: 600;
  cursor: pointer;
}

.here-only {
  padding-left: 12px;
  border-left: 3px solid var(--alarm);
}
</style>
