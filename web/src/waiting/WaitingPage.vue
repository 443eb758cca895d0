<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import type { Act } from '@/api/outbox/act'
import { device } from '@/api/device'
import { useOutbox } from '@/api/outbox/useOutbox'
import ActButton from '@/kit/ActButton.vue'
import { useSlip } from '@/kit/useSlip'
import { useSay } from '@/words/useSay'
import { asFile, fromFile } from './file'
import HeapClash from './HeapClash.vue'
import RecordClash from './RecordClash.vue'

/** What was done on this device and the farm does not know yet: to be sent, carried off, or decided. */
const say = useSay()
const { t } = say
const slip = useSlip()
const outbox = useOutbox()
const picked = useTemplateRef<HTMLInputElement>('picked')
const isSending = ref(false)

const title = computed(() =>
  outbox.waiting.length ? t('waits.title', outbox.waiting.length) : t('waits.nothing'),
)

const rows = computed(() =>
  outbox.waiting.map((act, at) => ({
    act,
    // What somebody else did here before is not the next one's to read.
    what: outbox.isMine(act) ? t(`waits.kind.${act.kind}`, { what: act.says }) : t('waits.someone'),
    state: stateOf(act, outbox.waiting.slice(0, at)),
  })),
)

function stateOf(act: Act, before: Act[]): string {
  if (act.trouble)
    return act.trouble.clashes ? t('waits.clashes') : t('waits.refused', { why: act.trouble.words })
  if (!outbox.isMine(act)) return t('waits.anothers')
  return before.some((one) => one.of === act.of && one.trouble) ? t('waits.behind') : t('waits.signal')
}

async function sendNow() {
  isSending.value = true
  await outbox.flush()
  isSending.value = false
  if (outbox.isCutOff) slip.failed(t('app.noServer'))
}

function carryOff() {
  const url = URL.createObjectURL(
    new Blob([asFile(outbox.waiting.filter(outbox.isMine), device())], { type: 'application/json' }),
  )
  const link = document.createElement('a')
  link.href = url
  link.download = `zymarch-waiting-${new Date().toISOString().slice(0, 16).replaceAll(':', '')}.json`
  link.click()
  URL.revokeObjectURL(url)
}

async function takeIn(event: Event) {
  const [file] = (event.target as HTMLInputElement).files ?? []
  if (!file) return
  const acts = fromFile(await file.text())
  if (picked.value) picked.value.value = ''
  if (!acts) return slip.failed(t('waits.noFile', { file: file.name }))
  const taken = await outbox.takeIn(acts)
  slip.said({ text: t('waits.taken', taken) })
}

/** What is let go can be had back for as long as the slip lies there. */
async function letGo(act: Act) {
  const words = t('waits.letGone', { what: t(`waits.kind.${act.kind}`, { what: act.says }) })
  const gone = outbox.withAll(act)
  await outbox.letGo(...gone.map(({ id }) => id))
  slip.said({ text: words, undoLabel: t('app.undo'), undo: () => void outbox.takeIn(gone) })
}
</script>

<template>
  <header class="page-head">
    <div>
      <h1>{{ title }}</h1>
      <p>{{ outbox.waiting.length ? t('waits.lead') : t('waits.nothingLead') }}</p>
      <p v-if="outbox.isForgetful" class="alarm">{{ t('waits.forgetful') }}</p>
    </div>
    <div class="acts">
      <template v-if="outbox.waiting.length">
        <ActButton :label="t('waits.send')" :loading="isSending" @click="sendNow" />
        <ActButton variant="outlined" :label="t('waits.carryOff')" @click="carryOff" />
      </template>
      <ActButton variant="outlined" :label="t('waits.takeIn')" @click="picked?.click()" />
      <input ref="picked" type="file" accept=".json,application/json" hidden @change="takeIn" />
    </div>
  </header>
  <ol class="ruled-list">
    <li v-for="{ act, what, state } in rows" :key="act.id" :class="{ stuck: act.trouble }">
      <div class="row">
        <span class="what">{{ what }}</span>
        <span class="quiet small">{{ say.time(act.at) }}, {{ state }}</span>
        <span class="row-acts">
          <button
            v-if="act.trouble && !act.trouble.clashes"
            type="button"
            class="word-act"
            :aria-label="t('waits.againNamed', { what })"
            @click="outbox.again(act)"
          >
            {{ t('waits.again') }}
          </button>
          <button
            v-if="!act.trouble?.clashes"
            type="button"
            class="word-act"
            :aria-label="t('waits.letGoNamed', { what })"
            @click="letGo(act)"
          >
            {{ t('waits.letGo') }}
          </button>
        </span>
      </div>
      <template v-if="act.trouble?.clashes">
        <RecordClash v-if="act.trouble.now" :act="act" @theirs="letGo(act)" />
        <HeapClash v-else-if="act.kind.startsWith('heap')" :act="act" @theirs="letGo(act)" />
        <button v-else type="button" class="word-act" @click="letGo(act)">{{ t('waits.letGo') }}</button>
      </template>
    </li>
  </ol>
</template>

<style scoped>
ol {
  margin-top: 16px;
}

li {
  display: block;
  padding: 10px 0;
}

.stuck {
  padding-inline-start: 12px;
  border-inline-start: 3px solid var(--alarm);
}

.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 4px 18px;
  align-items: center;
}

.what {
  overflow-wrap: anywhere;
}

.row-acts {
  display: flex;
  gap: 14px;
}

@media (max-width: 859px) {
  .row {
    grid-template-columns: minmax(0, 1fr) auto;
  }

  .what {
    grid-column: 1 / -1;
  }
}
</style>
