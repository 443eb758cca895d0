<script lang="ts">
import { later } from '@/kit/later'

const scrolled = later(() => import('./ScrolledList.vue'))
</script>

<script setup lang="ts" generic="T">
import { computed, watch } from 'vue'
import { useMedia } from './useMedia'

/**
 * A list of any length: a short one is drawn whole, and on paper every one is; of a long one, what
 * is in view.
 */
const { items } = defineProps<{
  items: T[]
  keyOf: (item: T) => string
  /** How high a row is until it is drawn, px. */
  height: number
  /** Whether a box scrolls it, as in a dialog, and not the page. */
  boxed?: boolean
}>()
defineSlots<{ default(given: { item: T }): unknown }>()

/** Up to so many are drawn whole. */
const FEW = 40
/** So many of a long one stand there until what draws it is there. */
const FIRST = 10
const isPaper = useMedia('print')
const isLong = computed(() => items.length > FEW && !isPaper.value)
const { part: ScrolledList } = scrolled
watch(isLong, (is) => void (is && scrolled.fetch()), { immediate: true })
</script>

<template>
  <component :is="ScrolledList" v-if="isLong && ScrolledList" v-slot="{ item }: { item: T }" v-bind="$props">
    <slot :item="item" />
  </component>
  <ul v-else>
    <!-- The first of a long one, until what draws it is there. -->
    <li v-for="item in isLong ? items.slice(0, FIRST) : items" :key="keyOf(item)"><slot :item="item" /></li>
  </ul>
</template>
