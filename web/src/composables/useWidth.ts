import { onBeforeUnmount, ref, watch, type Ref } from 'vue'

/** Width of an element in pixels, kept true as it changes, from whenever it is there. */
export function useWidth(element: Ref<HTMLElement | null>, first: number) {
  const width = ref(first)
  const watcher = new ResizeObserver(([entry]) => {
    if (entry) width.value = Math.floor(entry.contentRect.width)
  })
  watch(element, (now, before) => {
    if (before) watcher.unobserve(before)
    if (now) watcher.observe(now)
  })
  onBeforeUnmount(() => watcher.disconnect())
  return width
}
