import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import '@/theme/base.css'
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import ToastService from 'primevue/toastservice'
import { createApp } from 'vue'
import App from './App.vue'
import { Refused } from '@/api/client'
import { i18n } from '@/words/i18n'
import { fetchAhead, router } from './router'
import { Drawing } from '@/theme/preset'

const nonce = document.querySelector<HTMLMetaElement>('meta[name="style-nonce"]')?.content

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      // What the server refuses once it refuses again; a lost connection may come back.
      retry: (count, error) => !(error instanceof Refused) && count < 2,
    },
  },
})

createApp(App)
  .use(createPinia())
  .use(router)
  .use(i18n)
  .use(VueQueryPlugin, { queryClient: queries })
  .use(PrimeVue, {
    theme: { preset: Drawing, options: { darkModeSelector: 'system', prefix: 'z' } },
    csp: { nonce },
  })
  .use(ToastService)
  .mount('#app')

fetchAhead()
