<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import { useDraft } from './draft'

/** The head of the amounts: undo and redo, and what can be done with the mix. */
const { hasStock, hasMix } = defineProps<{ hasStock: boolean; hasMix: boolean }>()
const emit = defineEmits<{ add: []; correct: [] }>()

const { t } = useI18n()
const store = useDraft()
const router = useRouter()
</script>

<template>
  <header class="ruled">
    <h2>{{ t('bench.amounts') }}</h2>
    <span class="backward">
      <button
        type="button"
        class="word-act"
        :aria-label="t('bench.undo')"
        :title="t('bench.undo')"
        :disabled="!store.canUndo"
        @click="store.undo"
      >
        ↶
      </button>
      <button
        type="button"
        class="word-act"
        :aria-label="t('bench.redo')"
        :title="t('bench.redo')"
        :disabled="!store.canRedo"
        @click="store.redo"
      >
        ↷
      </button>
    </span>
  </header>
  <div class="under">
    <button type="button" class="word-act" @click="hasStock ? emit('add') : router.push('/stock')">
      + {{ t(hasStock ? 'bench.addFromStock' : 'bench.toStock') }}
    </button>
    <RouterLink v-if="hasStock" to="/choices" class="word-act find">{{ t('bench.find') }}</RouterLink>
    <button v-if="hasMix" type="button" class="word-act" @click="emit('correct')">
      {{ t('bench.mend') }}
    </button>
  </div>
</template>

<style scoped>
.ruled {
  align-items: center;
  height: 31px;
}

.find {
  display: flex;
  align-items: center;
  text-decoration: none;
}

.under {
  display: flex;
  flex-wrap: wrap;
  gap: 0 16px;
  font-size: 0.9375rem;
}

.backward {
  display: flex;
}

.backward .word-act {
  width: 44px;
  margin-block: -10px;
  font-size: 1.375rem;
  text-align: center;
}
</style>
