import '@/theme/letters.css'
import '@/theme/base.css'
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import ToastService from 'primevue/toastservice'
import { createApp } from 'vue'
import App from './App.vue'
import { Refused } from '@/api/client'
import { begun } from '@/api/start'
import { isRunning } from '@/kit/app'
import { i18n } from '@/words/i18n'
import { fetchAhead, router } from './router'

const queries = new QueryClient({
  defaultOptions: {
    // The farm may be on this very machine, or near where there is no signal: what a browser holds of the
    // network is not asked.
    mutations: { networkMode: 'always' },
    queries: {
      networkMode: 'always',
      staleTime: 5_000,
      // An answer is never changed where it is, only replaced: none of its thousands of parts needs watching.
      shallow: true,
      // What the server refuses once it refuses again; a lost connection may come back.
      retry: (count, error) => !(error instanceof Refused) && count < 2,
    },
  },
})

const app = createApp(App)
  .use(createPinia())
  .use(router)
  .use(i18n)
  .use(VueQueryPlugin, { queryClient: queries })
  .use(ToastService)

isRunning(app)

// What was asked for before any script was here is there by now, or will be in a moment.
void begun(queries).then(() => {
  app.mount('#app')
  fetchAhead(queries)
})
