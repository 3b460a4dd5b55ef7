/** Names that page and service worker share. */
export const KEPT = 'fidicula-kept'
export const KEPT_HEADER = 'x-fidicula-kept'
/** Holds one entry while somebody is signed in: which sign-in what is kept belongs to. */
export const SIGN_IN = 'fidicula-sign-in'
export const SIGN_IN_ENTRY = '/sign-in'

/** Which sign-in holds in this browser; empty for none. */
export async function signInThatHolds(): Promise<string> {
  const found = await (await caches.open(SIGN_IN)).match(SIGN_IN_ENTRY)
  return found ? found.text() : ''
}
