<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Material, Moment } from '@/api/client'

/**
 * What to mind with a material, gravest first, and what a person should know
 * of it; of one moment of the work, or all.
 */
const { material, moment } = defineProps<{ material: Material; moment?: Moment }>()
const { t } = useI18n()

const GRAVITY = ['prohibit', 'restrict', 'caution', 'info']
const sorted = computed(() =>
  material.cautions
    .filter((one) => !moment || one.moments.includes(moment) || one.severity === 'prohibit')
    .sort((a, b) => GRAVITY.indexOf(a.severity) - GRAVITY.indexOf(b.severity)),
)
</script>

<template>
  <div class="cautions">
    <p v-if="material.note">{{ material.note }}</p>
    <ul v-if="sorted.length">
      <li v-for="caution in sorted" :key="caution.code" :class="caution.severity">
        <b>{{ t(`severity.${caution.severity}`) }}:</b> {{ t(`caution.${caution.code}`) }}
      </li>
    </ul>
  </div>
</template>

<style scoped>
.cautions {
  padding: 10px 14px;
  background: var(--paper-2);
  font-size: 0.9375rem;
}

li {
  margin-top: 6px;
}

.prohibit {
  color: var(--alarm);
  font-weight: 600;
}
</style>
