import { onBeforeUnmount, ref, watch, type Ref } from 'vue'

/** Width of an element in pixels, kept true as it changes, from whenever it is there. */
export function useWidth(element: Ref<HTMLElement | null>, first: number) {
  const width = ref(first)
  const watcher = new ResizeObserver(([entry]) => {
    // Folded away it has none, and nothing is drawn for nobody.
    if (entry && entry.contentRect.width > 0) width.value = Math.floor(entry.contentRect.width)
  })
  watch(element, (now, before) => {
    if (before) watcher.unobserve(before)
    if (now) watcher.observe(now)
  })
  onBeforeUnmount(() => watcher.disconnect())
  return width
}
