import { readonly, ref } from 'vue'
import { LAST_ANSWERS } from './names'

const isNew = ref(false)
/** Whether a new version of the app is here; the next page is one of it. */
export const hasNewVersion = readonly(isNew)

/** Has this device keep the app and the farm's last answers, where a browser can and may. */
export async function keepHere() {
  // Only where nobody on the way can change what is kept: sealed, or on the machine itself.
  if (!window.isSecureContext || !('serviceWorker' in navigator) || !import.meta.env.PROD) return
  const before = navigator.serviceWorker.controller
  navigator.serviceWorker.addEventListener('controllerchange', () => (isNew.value = !!before))
  try {
    await navigator.serviceWorker.register('/worker.js')
    await navigator.serviceWorker.ready
    // Being ready it takes the page over, in its own time.
    if (!navigator.serviceWorker.controller)
      await new Promise((over) =>
        navigator.serviceWorker.addEventListener('controllerchange', over, { once: true }),
      )
    // Without this a browser short of room may throw away what waits to be sent.
    await navigator.storage?.persist?.()
  } catch {
    // A browser that keeps nothing: the app works as long as the farm answers.
  }
}

/** Forgets what the farm answered: whoever comes next on this device sees none of it. */
export async function forgetAnswers() {
  try {
    await caches.delete(LAST_ANSWERS)
  } catch {
    // Where nothing can be kept there is nothing to forget.
  }
}
