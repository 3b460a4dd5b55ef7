/**
 * The service worker: keeps the shell of this build and what was last seen of the house, so that every page opens while
 * the server is away. It answers nothing that the server answers; what it gives out of what it kept says so.
 */
/// <reference lib="webworker" />
import { ExpirationPlugin } from 'workbox-expiration'
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute, type PrecacheEntry } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'
import { NetworkFirst } from 'workbox-strategies'
import { KEPT, KEPT_HEADER, signInThatHolds } from './shared/keptNames'

declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: (PrecacheEntry | string)[] }

/** So long a server that says nothing is waited for before what was kept is shown. */
const PATIENCE_S = 4
const KEPT_AT_MOST = 400

precacheAndRoute(self.__WB_MANIFEST)
cleanupOutdatedCaches()
registerRoute(new NavigationRoute(createHandlerBoundToURL('/index.html'), { denylist: [/^\/api\//] }))

/** Files, and what never ends. */
const NOT_KEPT = /^\/api\/(changes|health|recordings|blind|photos|templates|openapi)|\/(picture|template|paper\.pdf)/
/** The page keeps a sheet itself: it alone knows which of several answers on their way is the newest. */
const PAGE_KEEPS = /\/sheet$/

registerRoute(
  ({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith('/api/') && !NOT_KEPT.test(url.pathname),
  new NetworkFirst({
    cacheName: KEPT,
    networkTimeoutSeconds: PATIENCE_S,
    plugins: [
      new ExpirationPlugin({ maxEntries: KEPT_AT_MOST }),
      {
        async requestWillFetch({ request, state }) {
          if (state) state.signIn = await signInThatHolds()
          return request
        },
        /** Only while the sign-in holds that it was asked for: an answer may come after a sign-out. */
        async cacheWillUpdate({ request, response, state }) {
          const isKept = response.ok && !PAGE_KEEPS.test(new URL(request.url).pathname)
          return isKept && state?.signIn && state.signIn === (await signInThatHolds()) ? response : null
        },
        async cacheDidUpdate({ state }) {
          if (state?.signIn !== (await signInThatHolds())) await caches.delete(KEPT)
        },
        cachedResponseWillBeUsed({ cachedResponse }) {
          if (!cachedResponse) return Promise.resolve(cachedResponse)
          const headers = new Headers(cachedResponse.headers)
          headers.set(KEPT_HEADER, '1')
          return Promise.resolve(new Response(cachedResponse.body, { status: cachedResponse.status, headers }))
        },
      },
    ],
  }),
)

/** A new version waits until somebody says so: a page in the middle of a measuring keeps its own. */
self.addEventListener('message', (event) => {
  if ((event.data as { type?: string } | null)?.type === 'SKIP_WAITING') void self.skipWaiting()
})
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))
