import { onScopeDispose, readonly, ref } from 'vue'

/** Whether the screen is as a media query says, kept true as it changes. */
export function useMedia(query: string) {
  const list = window.matchMedia(query)
  const holds = ref(list.matches)
  const follow = () => (holds.value = list.matches)
  list.addEventListener('change', follow)
  onScopeDispose(() => list.removeEventListener('change', follow))
  return readonly(holds)
}

/** Where the page is one column and the places lie at the thumb. */
export const useIsPhone = () => useMedia('(max-width: 859px)')

/** Height of the window in pixels. */
export function useHeight() {
  const height = ref(window.innerHeight)
  const follow = () => (height.value = window.innerHeight)
  window.addEventListener('resize', follow)
  onScopeDispose(() => window.removeEventListener('resize', follow))
  return readonly(height)
}
