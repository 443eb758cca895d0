import { readonly, ref } from 'vue'
import { forgetAnswers } from '@/offline/keep'
import type { Middleware } from 'openapi-fetch'
import type { components } from './schema'

/** Whether the farm says that somebody must sign in first: nobody did here, or this device was cut off. */
const isSignedOut = ref(false)
export const signedOut = readonly(isSignedOut)

/** Somebody came in, or nobody is in any more. */
export function setSignedOut(is: boolean) {
  isSignedOut.value = is
  if (is) void forgetAnswers()
}

/** Hears it from any answer, whoever asked. */
export const atTheDoor: Middleware = {
  async onResponse({ response }) {
    if (response.status !== 401) return
    const { errors } = (await response.clone().json()) as components['schemas']['Problem']
    if (errors.some(({ code }) => code === 'sign-in-first')) setSignedOut(true)
  },
}
