<script setup lang="ts">
import '@/theme/controls'
import SelectButton from 'primevue/selectbutton'
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { type Paper, PAPERS } from './paper'

/** Which paper a card is for. */
const paper = defineModel<Paper>({ required: true })
const { t } = useI18n()
const papers = computed(() => PAPERS.map((value) => ({ value, label: t(`card.paper.${value}`) })))
</script>

<template>
  <SelectButton
    v-model="paper"
    class="papers"
    :options="papers"
    option-label="label"
    option-value="value"
    data-key="value"
    :allow-empty="false"
    :aria-label="t('card.papers')"
  />
</template>

<style scoped>
.papers {
  margin: 16px 0;
}

@media print {
  .papers {
    display: none;
  }
}
</style>
