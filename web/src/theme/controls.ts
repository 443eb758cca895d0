import PrimeVue from 'primevue/config'
import type { App } from 'vue'
import { Drawing } from './preset'

/** Makes the library's larger controls ready: dialogs, drawers, long choices. */
export function install(app: App) {
  const nonce = document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content
  app.use(PrimeVue, {
    theme: { preset: Drawing, options: { darkModeSelector: 'system', prefix: 'z' } },
    csp: { nonce },
  })
}
