<script lang="ts">
import { later } from '@/kit/later'

const slips = later(() => import('@/kit/SlipToast.vue'))
const strips = later(() => import('@/waiting/WaitingStrip.vue'))
</script>

<script setup lang="ts">
import { computed, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute } from 'vue-router'
import { signedOut } from '@/api/door'
import { useOutbox } from '@/api/outbox/useOutbox'
import HatchDefs from '@/kit/HatchDefs.vue'
import RailNav from '@/kit/RailNav.vue'
import TroubleBar from '@/kit/TroubleBar.vue'
import { useMe } from '@/people/useMe'
import { isSaid } from '@/kit/useSlip'

const { t } = useI18n()
const route = useRoute()
const { part: SlipToast } = slips
const { part: WaitingStrip } = strips
const outbox = useOutbox()
const { me, mayWork, mayKeep, mayBook } = useMe()
/** What somebody may not do is not offered; that the farm refuses it too is another matter. */
const may = computed(() => ({
  'may-not-work': !mayWork.value,
  'may-not-keep': !mayKeep.value,
  'may-not-book': !mayBook.value,
}))
watch(isSaid, () => void slips.fetch())
watch(
  () => outbox.waiting.length > 0,
  (is) => is && void strips.fetch(),
  { immediate: true },
)

function toPage() {
  document.getElementById('page')?.focus()
}
</script>

<template>
  <a href="#page" class="skip" @click.prevent="toPage">{{ t('app.skip') }}</a>
  <HatchDefs />
  <div class="frame" :class="[{ bare: route.meta.bare, wall: route.meta.wall }, may]">
    <RailNav v-if="!signedOut && !route.meta.door" />
    <div>
      <div class="told">
        <TroubleBar />
        <component :is="WaitingStrip" v-if="WaitingStrip && outbox.waiting.length && !route.meta.wall" />
      </div>
      <p v-if="me && !mayWork && !route.meta.bare" class="looks">{{ t('app.guest') }}</p>
      <main id="page" tabindex="-1"><RouterView /></main>
    </div>
  </div>
  <component :is="SlipToast" v-if="SlipToast" />
</template>

<style scoped>
.frame {
  display: grid;
  grid-template-columns: var(--rail) minmax(0, 1fr);
  min-height: 100dvh;
}

main {
  padding: 20px 28px 16px;
}

main:focus {
  outline: none;
}

.wall {
  grid-template-columns: minmax(0, 1fr);
}

.wall > :deep(nav) {
  display: none;
}

.told {
  position: sticky;
  top: 0;
  z-index: 5;
}

.looks {
  padding: 8px 28px;
  border-bottom: 1px solid var(--line);
  background: var(--paper-2);
}

.skip {
  position: fixed;
  top: -100px;
  left: 8px;
  z-index: 10;
  padding: 12px 16px;
  background: var(--act);
  color: var(--on-act);
}

.skip:focus {
  top: 8px;
}

@media (max-width: 859px) {
  .looks {
    padding: 8px 16px;
  }

  .frame {
    display: block;
    padding-bottom: 72px;
  }

  main {
    padding: 16px;
  }

  /* Where the thumb has one thing to do, the places give way. */
  .bare > :deep(nav) {
    display: none;
  }

  .frame.bare {
    padding-bottom: 0;
  }
}

@media print {
  .frame {
    display: block;
    padding: 0;
  }

  main {
    padding: 0;
  }

  /* A fixed place on paper is the foot of the sheet. */
  .skip {
    display: none;
  }
}
</style>
