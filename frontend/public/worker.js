/**
 * The service worker: keeps the shell and what was last seen of the house, so that a page that is loaded again while
 * the server is away finds both. It answers nothing that the server answers; what it gives out of what it kept says so.
 */
const SHELL = 'fidicula-shell'
const KEPT = 'fidicula-kept'
const KEEPS = [/^\/api\/(session|rail|choices|screening)$/, /^\/api\/instruments\/[^/]+\/(sheet|card|views|look|string-sets)$/]
/** The page keeps a sheet itself: it alone knows which of several answers on their way is the newest. */
const PAGE_KEEPS = /\/sheet$/
/** So long a server that says nothing is waited for before what was kept is shown. [ms] */
const PATIENCE = 4000

self.addEventListener('install', (event) => {
  event.waitUntil(keepShell().then(() => self.skipWaiting()))
})
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))
/* What the page had loaded before there was a worker. */
self.addEventListener('message', (event) => {
  if (Array.isArray(event.data)) event.waitUntil(caches.open(SHELL).then((cache) => Promise.all(event.data.map((path) => addOnce(cache, path)))))
})

async function keepShell() {
  const cache = await caches.open(SHELL)
  const page = await fetch('/', { cache: 'reload' })
  const text = await page.clone().text()
  await cache.put('/', page)
  const parts = [...text.matchAll(/\/assets\/[^"']+/g)].map(([path]) => path)
  await Promise.all(parts.map((path) => addOnce(cache, path)))
}
async function addOnce(cache, path) {
  if (!(await cache.match(path))) await cache.add(path)
}

self.addEventListener('fetch', (event) => {
  const { request } = event
  const url = new URL(request.url)
  if (request.method !== 'GET' || url.origin !== self.location.origin) return
  if (request.mode === 'navigate') event.respondWith(freshOr(request, SHELL, '/'))
  else if (url.pathname.startsWith('/assets/')) event.respondWith(keptOr(request))
  else if (KEEPS.some((one) => one.test(url.pathname))) event.respondWith(freshOr(request, KEPT, url.pathname + url.search))
})

/** A part of the shell is named by what is in it: once kept, it never changes. */
async function keptOr(request) {
  const cache = await caches.open(SHELL)
  const kept = await cache.match(request)
  if (kept) return kept
  const answer = await fetch(request)
  if (answer.ok) await cache.put(request, answer.clone())
  return answer
}

async function freshOr(request, name, key) {
  const cache = await caches.open(name)
  const fresh = fetch(request).then(async (answer) => {
    if (answer.ok && !PAGE_KEEPS.test(key)) await cache.put(key, answer.clone())
    return answer
  })
  const kept = await cache.match(key)
  if (!kept) return fresh
  const late = new Promise((resolve) => setTimeout(() => resolve(null), PATIENCE))
  return (await Promise.race([fresh.catch(() => null), late])) ?? marked(kept)
}
function marked(kept) {
  const headers = new Headers(kept.headers)
  headers.set('x-fidicula-kept', '1')
  return new Response(kept.body, { status: kept.status, headers })
}
