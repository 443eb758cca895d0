import type { Middleware } from 'openapi-fetch'
import { readonly, ref } from 'vue'
import { FROM_BEFORE } from '@/offline/names'
import type { components } from './schema'

/** Why the farm cannot be reached just now: the program is silent, or says what its file lacks. */
export type Trouble = { is: 'silent' } | { is: 'said'; words: string }

const now = ref<Trouble | null>(null)
export const trouble = readonly(now)

/** Something could not be fetched: the program is silent. */
export const cutOff = () => (now.value ??= { is: 'silent' })

/** Every answer, and every silence, tells whether the farm can be reached. */
export const listening: Middleware = {
  async onResponse({ response }) {
    if (response.headers.has(FROM_BEFORE)) {
      cutOff()
      return
    }
    if (response.status !== 503) {
      now.value = null
      return
    }
    const { detail } = (await response.clone().json()) as components['schemas']['Problem']
    now.value = { is: 'said', words: detail }
  },
  onError({ error }) {
    // A question that was given up on is no silence.
    if (!(error instanceof DOMException && error.name === 'AbortError')) now.value = { is: 'silent' }
  },
}
