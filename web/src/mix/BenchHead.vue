<script setup lang="ts">
import ActButton from '@/kit/ActButton.vue'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { useSay } from '@/words/useSay'
import { useDraft } from './draft'

/** The verdict of the bench, the step that mends the mix as an act within it, and what comes after. */
const { verdict, mend, reason, hasMix, isOld } = defineProps<{
  verdict: string
  mend: { before: string; step: string; after: string } | null
  reason: string
  hasMix: boolean
  /** What stands here is of an earlier state of the mix. */
  isOld: boolean
}>()
const emit = defineEmits<{ mend: []; save: []; saveNew: [] }>()

const { t } = useSay()
const store = useDraft()
const router = useRouter()

const isEmpty = computed(() => store.draft.items.length === 0)
const status = computed(() => {
  const saved = store.draft.saved
  if (!saved) return store.draft.items.length ? t('bench.unsaved') : ''
  return t(store.isChanged ? 'bench.changed' : 'bench.same', { name: saved.name })
})
</script>

<template>
  <header class="page-head">
    <div aria-live="polite">
      <div class="top">
        <h1 :class="{ old: isOld }">
          {{ verdict }}
          <template v-if="mend">
            {{ mend.before
            }}<button v-if="mend.step" type="button" class="mend" :disabled="isOld" @click="emit('mend')">
              {{ mend.step }}</button
            >{{ mend.after }}
          </template>
        </h1>
        <slot />
      </div>
      <p>
        <b v-if="isOld" class="not-yet">{{ t('bench.old') }}</b>
        {{ reason }}
        <span class="status">{{ status }}</span>
        <button
          v-if="store.draft.saved"
          data-deed="work"
          type="button"
          class="word-act inline"
          @click="emit('saveNew')"
        >
          {{ t('bench.saveNew') }}
        </button>
      </p>
    </div>
    <div v-if="!isEmpty" class="acts">
      <ActButton
        data-deed="work"
        :label="t(store.draft.saved ? 'bench.saveNamed' : 'bench.save')"
        variant="outlined"
        :disabled="!hasMix"
        @click="emit('save')"
      />
      <ActButton :label="t('bench.plan')" :disabled="!hasMix" @click="router.push('/layers')" />
    </div>
  </header>
</template>

<style scoped>
.page-head {
  min-height: 60px;
}

.status {
  color: var(--ink-2);
  font-style: italic;
}

.inline {
  min-height: 0;
  margin-inline-start: 6px;
}

.mend {
  display: inline;
  padding: 0;
  border: 0;
  background: none;
  font: inherit;
  color: var(--act);
  text-align: start;
  text-decoration: underline;
  text-decoration-thickness: 2px;
  text-underline-offset: 4px;
  cursor: pointer;
}

.mend:hover {
  color: var(--act-strong);
}

.old,
.old .mend {
  color: var(--ink-2);
}

.not-yet {
  color: var(--alarm);
}

/* The verdict and its figures stay in sight while amounts are stepped; the wrapper must not hold them back. */
@media (max-width: 859px) {
  .page-head,
  .page-head > div:first-child {
    display: contents;
  }

  .top {
    position: sticky;
    top: 0;
    z-index: 3;
    margin: -16px -16px 0;
    padding: 10px 16px 6px;
    border-bottom: 1px solid var(--ink);
    background: var(--paper);
  }

  h1 {
    margin-bottom: 6px;
    font-size: 1.1875rem;
    line-height: 1.2;
  }

  p {
    margin-top: 2px;
  }
}
</style>
