import { onScopeDispose, type Ref, watch } from 'vue'

/** Whether a page is being gone to just now; the router keeps it. */
export const underWay = { is: false }

/** Marks the entry of the history that a drawer or a dialog stands on. */
const MARK = 'zymarchOver'

/**
 * The back button of a phone closes what lies over the page before it leaves the page:
 * opening puts an entry on the history, and closing in any other way takes it off again.
 */
export function useBackCloses(open: Ref<boolean>) {
  let mine: number | null = null

  function onBack() {
    if (mine === null || isOn(mine)) return
    mine = null
    open.value = false
  }

  watch(
    open,
    (is) => {
      if (is && mine === null) {
        mine = Date.now() + Math.random()
        history.pushState({ ...(history.state as object | null), [MARK]: mine }, '')
        window.addEventListener('popstate', onBack)
      } else if (!is && mine !== null) {
        window.removeEventListener('popstate', onBack)
        const was = mine
        mine = null
        // What closes it often leads on to another page in the same breath: then its entry stays.
        setTimeout(() => isOn(was) && !underWay.is && history.back())
      }
    },
    { immediate: true },
  )
  onScopeDispose(() => window.removeEventListener('popstate', onBack))
}

const isOn = (mark: number) => (history.state as Record<string, unknown> | null)?.[MARK] === mark
