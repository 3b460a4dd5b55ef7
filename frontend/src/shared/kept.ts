/** What this browser keeps of the house, for a page that is loaded again while the server is away. */
import { KEPT } from './keptNames'

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

/** What was kept under an address, for what is asked in a way that the worker cannot keep; null where nothing was. */
export async function lastSeen<Answer>(address: string): Promise<Answer | null> {
  if (!('caches' in window)) return null
  const found = await caches.match(address)
  return found ? ((await found.json()) as Answer) : null
}
