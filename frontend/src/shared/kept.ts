/** What this browser keeps of the house, for a page that is loaded again while the server is away. */
const KEPT = 'fidicula-kept'
const SOON_MS = 300

const later = new Map<string, ReturnType<typeof setTimeout>>()

/** Keep an answer under the address that it will be asked for by; many in a row are kept once. */
export function keep(address: string, answer: unknown): void {
  if (!('caches' in window)) return
  clearTimeout(later.get(address))
  later.set(
    address,
    setTimeout(() => {
      const response = new Response(JSON.stringify(answer), { headers: { 'content-type': 'application/json' } })
      void caches.open(KEPT).then((cache) => cache.put(address, response)).catch(() => undefined)
    }, SOON_MS),
  )
}

/** Nobody is signed in here any more: nothing of the house stays. */
export async function forgetKept(): Promise<void> {
  for (const timer of later.values()) clearTimeout(timer)
  if ('caches' in window) await caches.delete(KEPT)
}

/** The worker keeps the shell; a browser without one only cannot load the page anew while the server is away. */
export async function startWorker(): Promise<void> {
  if (!('serviceWorker' in navigator)) return
  try {
    await navigator.serviceWorker.register('/worker.js')
    const worker = await navigator.serviceWorker.ready
    const loaded = performance.getEntriesByType('resource').map((entry) => new URL(entry.name).pathname)
    worker.active?.postMessage([...new Set(loaded)].filter((path) => path.startsWith('/assets/')))
  } catch {
    // Forbidden here, or the server went away meanwhile: the page works without it.
  }
}
