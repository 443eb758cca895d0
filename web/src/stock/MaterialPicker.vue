<script setup lang="ts">
import '@/theme/controls'
import AutoComplete, { type AutoCompleteCompleteEvent } from 'primevue/autocomplete'
import { ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Material } from '@/api/client'
import HatchSwatch from '@/kit/HatchSwatch.vue'
import { useMaterials, useNames } from '@/farm/useFarm'
import { search } from './search'

/** Finds a material of the reference table by any part of its names. */
const {
  invalid,
  inputId,
  isFirst = true,
} = defineProps<{
  invalid?: boolean
  inputId: string
  /** Whether the cursor stands in it when a dialog opens. */
  isFirst?: boolean
}>()
const material = defineModel<Material | null>({ required: true })

const { t } = useI18n()
const { materials } = useMaterials()
const { hatchOf } = useNames()
/** While typing, the control holds the text; only a chosen material goes out. */
const held = ref<Material | string | null>(material.value)
watch(material, (chosen) => {
  if (chosen) held.value = chosen
})
watch(held, (now) => (material.value = now !== null && typeof now === 'object' ? now : null))

/** A new list at every asking, even for the same words: the control shows it when it changes. */
const found = ref<Material[]>([])
let asked = ''
function ask({ query }: AutoCompleteCompleteEvent) {
  asked = query
  found.value = search(materials.value, query)
}
// Typed before the table was here: it is looked for again once it is.
watch(materials, (all) => (found.value = search(all, asked)))
</script>

<template>
  <AutoComplete
    v-model="held"
    :suggestions="found"
    option-label="name"
    force-selection
    dropdown
    :min-length="0"
    :delay="0"
    fluid
    :input-id="inputId"
    :invalid="invalid"
    :placeholder="t('lot.materialHint')"
    :empty-search-message="t('lot.noMaterial')"
    scroll-height="320px"
    :pt="{ pcInputText: { root: { autofocus: isFirst } }, dropdown: { 'aria-label': t('lot.allMaterials') } }"
    @complete="ask"
  >
    <template #option="{ option }: { option: Material }">
      <span class="option">
        <HatchSwatch :hatch="hatchOf(option.id)" :size="32" />
        <span>
          {{ option.name }}
          <small
            >{{ option.must_not_go_in ? t('stock.refused') : t(`kind.${option.kind}`)
            }}<template v-if="option.is_own">, {{ t('origin.own') }}</template></small
          >
        </span>
      </span>
    </template>
  </AutoComplete>
</template>

<style scoped>
.option {
  display: flex;
  align-items: center;
  gap: 10px;
  white-space: normal;
}

small {
  display: block;
  font-size: 0.8125rem;
  color: var(--ink-2);
}
</style>
