/// <reference lib="webworker" />
/**
 * Between the page and the network: the pages of the app are kept from the day they came, and what the
 * farm answered last stands in for it where there is no signal. What is sent to the farm passes untouched.
 */
import { clientsClaim } from 'workbox-core'
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'
import { NetworkFirst } from 'workbox-strategies'
import { FROM_BEFORE, LAST_ANSWERS } from './names'

declare const self: ServiceWorkerGlobalScope & {
  __WB_MANIFEST: { url: string; revision: string | null }[]
}

/** For longer than this nobody in the field waits for a farm that hardly answers [s]. */
const PATIENCE_S = 5

precacheAndRoute(self.__WB_MANIFEST)
cleanupOutdatedCaches()
registerRoute(new NavigationRoute(createHandlerBoundToURL('/'), { denylist: [/^\/api\//, /\.\w+$/] }))

/** An answer of before says so: the page then knows that the farm was not reached. */
const saysSo = {
  async cachedResponseWillBeUsed({ cachedResponse }: { cachedResponse?: Response }) {
    if (!cachedResponse) return null
    const headers = new Headers(cachedResponse.headers)
    headers.set(FROM_BEFORE, '1')
    return new Response(await cachedResponse.blob(), { status: 200, headers })
  },
}

/** Answers only: what is refused or broken is not kept in place of what was there. */
const onlyAnswers = {
  async cacheWillUpdate({ response }: { response: Response }) {
    return response.status === 200 ? response : null
  },
}

/** What is asked at the door is asked of the farm itself, or not at all. */
const AT_THE_DOOR = '/api/sign-in'

registerRoute(
  ({ url, request }) =>
    request.method === 'GET' &&
    url.origin === self.location.origin &&
    url.pathname.startsWith('/api/') &&
    url.pathname !== AT_THE_DOOR,
  new NetworkFirst({
    cacheName: LAST_ANSWERS,
    networkTimeoutSeconds: PATIENCE_S,
    matchOptions: { ignoreVary: true },
    plugins: [saysSo, onlyAnswers],
  }),
)

// A new version takes over at once; pages that are open go on with it at their next step.
void self.skipWaiting()
clientsClaim()
