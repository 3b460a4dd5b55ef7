/** What this browser keeps of the house, for a page that is loaded again while the server is away. */
import { freshId } from './id'
import { KEPT, SIGN_IN, SIGN_IN_ENTRY, signInThatHolds } from './keptNames'

const SOON_MS = 300

const later = new Map<string, ReturnType<typeof setTimeout>>()
/** Whether somebody is signed in on this page: an answer that comes after that is kept no more. */
let isIn = false

/** Somebody is signed in: what is kept from here on belongs to that sign-in. */
export async function beginKeeping(): Promise<void> {
  isIn = true
  if (!('caches' in window) || (await signInThatHolds())) return
  await (await caches.open(SIGN_IN)).put(SIGN_IN_ENTRY, new Response(freshId()))
}

/** Keep an answer under the address that it will be asked for by; many in a row are kept once. */
export function keep(address: string, answer: unknown): void {
  if (!('caches' in window) || !isIn) return
  clearTimeout(later.get(address))
  later.set(address, setTimeout(() => void put(address, answer).catch(() => undefined), SOON_MS))
}

async function put(address: string, answer: unknown): Promise<void> {
  if (!isIn) return
  const response = new Response(JSON.stringify(answer), { headers: { 'content-type': 'application/json' } })
  await (await caches.open(KEPT)).put(address, response)
  // Signed out while it was being written: it does not stay.
  if (!isIn) await caches.delete(KEPT)
}

/** Nobody is signed in here any more: nothing of the house stays. */
export async function forgetKept(): Promise<void> {
  isIn = false
  for (const timer of later.values()) clearTimeout(timer)
  later.clear()
  if (!('caches' in window)) return
  await caches.delete(SIGN_IN)
  await caches.delete(KEPT)
}

/** What was kept under an address, for what is asked in a way that the worker cannot keep; null where nothing was. */
export async function lastSeen<Answer>(address: string): Promise<Answer | null> {
  if (!('caches' in window)) return null
  const found = await caches.match(address)
  return found ? ((await found.json()) as Answer) : null
}
