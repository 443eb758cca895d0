import { type ComponentMountingOptions, mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import ToastService from 'primevue/toastservice'
import type { Component } from 'vue'
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import words from '@locales/en.json'
import { i18n } from '@/words/i18n'

// On a page the first words come before the rest; a test has all of them.
i18n.global.setLocaleMessage('en', words as never)

/** A part of the page as it stands in the app, for its tests. */
export function mounted<C extends Component>(part: C, options: ComponentMountingOptions<C> = {}) {
  const plugins = [
    createPinia(),
    i18n,
    PrimeVue,
    ToastService,
    [
      VueQueryPlugin,
      { queryClient: new QueryClient({ defaultOptions: { queries: { retry: false, shallow: true } } }) },
    ],
  ]
  return mount(part, { ...options, global: { plugins, ...options.global } } as ComponentMountingOptions<C>)
}
