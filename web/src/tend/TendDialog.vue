<script setup lang="ts">
import TextInput from '@/kit/TextInput.vue'
import { computed, ref } from 'vue'
import type { LogTold } from '@/api/client'
import FormDialog from '@/kit/FormDialog.vue'
import FormField from '@/kit/FormField.vue'
import { useHalfTyped } from '@/kit/useHalfTyped'
import { useAbout } from '@/farm/useFarm'
import TendForm from './TendForm.vue'
import { emptyOf, isOneTap, missing, said, type TendKind, type Typed, typedOf } from './forms'
import { type PhotoSent, shrunk } from './photo'
import { useTend } from './useTending'
import { atOf, localOf, nowOf } from './when'

/** Writes one thing down of a heap, or puts an entry right. */
const { heap, kind, entry } = defineProps<{
  heap: { id: string; name: string; begun_at: string }
  /** What is written down; none while nothing is. */
  kind: TendKind | null
  /** The entry that is put right. */
  entry?: LogTold | null
}>()
const emit = defineEmits<{ close: [] }>()

const { tend, words } = useTend()
const { t } = words
const { about } = useAbout()

const typed = ref<Typed>({})
const note = ref('')
const when = ref('')
const isEarlier = ref(false)
const photo = ref<PhotoSent | null>(null)
const seen = ref('')
const trouble = ref('')
const isPending = ref(false)

const now = () => nowOf(about.value)

function begin() {
  if (!kind) return
  typed.value = entry?.what ? typedOf(entry.what) : emptyOf(kind)
  note.value = entry?.note ?? ''
  when.value = localOf(entry?.at ?? now())
  isEarlier.value = !!entry
  photo.value = null
  seen.value = ''
  trouble.value = ''
}
const { ended } = useHalfTyped(
  () => kind !== null,
  () => `${heap.id} ${kind} ${entry?.id}`,
  begin,
)

const isReady = computed(
  () =>
    kind !== null &&
    !missing(kind, typed.value).length &&
    (kind !== 'note' || note.value.trim() !== '') &&
    (kind !== 'photo' || photo.value !== null),
)
const open = computed({
  get: () => kind !== null,
  set: (is) => {
    if (!is) emit('close')
  },
})
const title = computed(() => (kind ? t(`tend.title.${kind}`, { name: heap.name }) : ''))

async function pick(event: Event) {
  const [file] = (event.target as HTMLInputElement).files ?? []
  if (!file) return
  photo.value = await shrunk(file)
  trouble.value = photo.value ? '' : t('tend.noPicture')
  seen.value = photo.value ? `data:image/jpeg;base64,${photo.value.base64}` : ''
}

async function save() {
  if (!kind || !isReady.value || isPending.value) return
  isPending.value = true
  const at = isEarlier.value ? atOf(when.value) : now()
  const kept = await tend(heap, {
    what: said(kind, typed.value),
    note: note.value.trim() || null,
    at,
    photo: photo.value,
    instead_of: entry?.id ?? null,
  })
  isPending.value = false
  if (!kept) return
  ended()
  emit('close')
}

/** What is one choice is done with it, unless more is being said. */
function chosen() {
  if (kind && isOneTap(kind) && !isEarlier.value && !note.value && !entry) void save()
}
</script>

<template>
  <FormDialog
    v-model:open="open"
    class="tend-dialog"
    :header="title"
    :does="t(entry ? 'tend.putRight' : 'tend.write')"
    :fault="trouble"
    :pending="isPending"
    :disabled="!isReady"
    @save="save"
    @cancel="ended"
  >
    <TendForm v-if="kind" v-model="typed" :kind="kind" @chosen="chosen" />
    <div v-if="kind === 'photo'" class="field">
      <label for="tend-photo" class="file">{{ t('tend.takePhoto') }}</label>
      <input id="tend-photo" type="file" accept="image/*" capture="environment" @change="pick" />
      <img v-if="seen" :src="seen" :alt="t('tend.kind.photo')" />
    </div>
    <FormField id="tend-note" field="note" :label="t(kind === 'note' ? 'tend.noteOnly' : 'tend.note')">
      <TextInput id="tend-note" v-model="note" fluid :maxlength="500" :autofocus="kind === 'note'" />
    </FormField>
    <button v-if="!isEarlier" type="button" class="word-act" @click="isEarlier = true">
      {{ t('tend.earlier') }}
    </button>
    <FormField v-else id="tend-when" field="at" :label="t('tend.when')">
      <input
        id="tend-when"
        v-model="when"
        type="datetime-local"
        class="full"
        :min="localOf(heap.begun_at)"
        :max="localOf(now())"
      />
    </FormField>
  </FormDialog>
</template>

<style scoped>
img {
  display: block;
  width: 100%;
  max-height: 40dvh;
  margin-top: 8px;
  object-fit: contain;
  background: var(--paper-2);
}

input[type='file'] {
  width: 100%;
  min-height: 44px;
  font: inherit;
}
</style>
