/**
 * Makes the library's larger controls (dialogs, drawers, long choices) ready for use. Whatever has one
 * imports this, so that they come with the first that is drawn: the first page has none.
 */
import PrimeVue from 'primevue/config'
import { running } from '@/kit/app'
import { Drawing } from './preset'

const nonce = document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content
running()?.use(PrimeVue, {
  theme: { preset: Drawing, options: { darkModeSelector: 'system', prefix: 'z' } },
  csp: { nonce },
})
