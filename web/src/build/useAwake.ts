import { onScopeDispose } from 'vue'

/** Keeps the screen of a phone on while a page is open, where the browser can. */
export function useAwake() {
  let lock: WakeLockSentinel | null = null
  let isOver = false

  async function hold() {
    if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return
    try {
      lock = await navigator.wakeLock.request('screen')
      if (isOver) void lock.release()
    } catch {
      // A low battery, or a browser that will not: the screen goes dark as ever.
    }
  }

  document.addEventListener('visibilitychange', hold)
  void hold()
  onScopeDispose(() => {
    isOver = true
    document.removeEventListener('visibilitychange', hold)
    void lock?.release()
  })
}
