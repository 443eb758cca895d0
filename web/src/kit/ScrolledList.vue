<script setup lang="ts" generic="T">
import {
  defaultRangeExtractor,
  type Range,
  useVirtualizer,
  useWindowVirtualizer,
  type VirtualItem,
} from '@tanstack/vue-virtual'
import { computed, onMounted, onScopeDispose, ref, useTemplateRef } from 'vue'

/** A long list, of which what is in view is drawn; and the row that has the focus, however far the page is pushed. */
const {
  items,
  keyOf,
  height,
  boxed = false,
} = defineProps<{
  items: T[]
  keyOf: (item: T) => string
  /** How high a row is until it is drawn, px. */
  height: number
  /** Whether a box scrolls it, as in a dialog, and not the page. */
  boxed?: boolean
}>()

/** Rows drawn above and below what is in view: the next ones are there before the focus comes to them. */
const BEYOND = 6

const list = useTemplateRef<HTMLElement>('list')
const box = ref<HTMLElement | null>(null)
/** From the top of what is scrolled to the top of the list, px. */
const above = ref(0)
const focused = ref(-1)

const shared = computed(() => ({
  count: items.length,
  estimateSize: () => height,
  getItemKey: (at: number) => keyOf(items[at]!),
  overscan: BEYOND,
  scrollMargin: above.value,
  rangeExtractor,
}))
const rows = boxed
  ? useVirtualizer<HTMLElement, HTMLElement>(
      computed(() => ({ ...shared.value, getScrollElement: () => box.value })),
    )
  : useWindowVirtualizer<HTMLElement>(shared)

function rangeExtractor(range: Range): number[] {
  const drawn = defaultRangeExtractor(range)
  const at = focused.value
  if (at < 0 || at >= range.count || drawn.includes(at)) return drawn
  return [...drawn, at].sort((one, other) => one - other)
}

const place = ({ start }: VirtualItem) => ({ transform: `translateY(${start - above.value}px)` })

function toRow(event: FocusEvent) {
  const row = (event.target as HTMLElement).closest<HTMLElement>('[data-index]')
  focused.value = row ? Number(row.dataset.index) : -1
}

const scrolls = (element: Element) => /auto|scroll/.test(getComputedStyle(element).overflowY)

function measure() {
  if (!list.value) return
  const from = box.value ? box.value.getBoundingClientRect().top - box.value.scrollTop : -window.scrollY
  above.value = Math.round(list.value.getBoundingClientRect().top - from)
}

// What stands above the list may grow or go.
const grown = new ResizeObserver(measure)
onMounted(() => {
  if (boxed)
    for (let one = list.value?.parentElement ?? null; one && !box.value; one = one.parentElement)
      if (scrolls(one)) box.value = one
  measure()
  grown.observe(document.body)
})
onScopeDispose(() => grown.disconnect())
</script>

<template>
  <ul
    ref="list"
    class="long"
    :style="{ height: `${rows.getTotalSize()}px` }"
    @focusin="toRow"
    @focusout="focused = -1"
  >
    <li
      v-for="row in rows.getVirtualItems()"
      :key="row.key as string"
      :ref="(element) => rows.measureElement(element as HTMLElement | null)"
      :data-index="row.index"
      :aria-posinset="row.index + 1"
      :aria-setsize="items.length"
      :style="place(row)"
    >
      <slot :item="items[row.index]!" />
    </li>
  </ul>
</template>

<style scoped>
.long {
  position: relative;
}

.long > li {
  position: absolute;
  inset: 0 0 auto;
}
</style>
