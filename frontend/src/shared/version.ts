/** Whether a newer version of the program is there; it takes over when somebody says so. */
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { ref } from 'vue'
import { registerSW } from 'virtual:pwa-register'

const LOOK_EVERY_MS = 30 * 60_000

/** What there is to say: a newer version, or a page of this one that is gone. */
export const newer = ref<'' | 'version' | 'page'>('')
let takeOver: () => Promise<void> = () => Promise.resolve()

/** The worker keeps the shell; a browser without one only cannot load the page again while the server is away. */
export function watchVersion(): void {
  useEventListener(window, 'vite:preloadError', (event: Event) => {
    event.preventDefault()
    newer.value = 'page'
  })
  if (!('serviceWorker' in navigator) || !import.meta.env.PROD) return
  takeOver = registerSW({
    onNeedRefresh: () => (newer.value = 'version'),
    onRegisteredSW(_address, registration) {
      if (!registration) return
      const look = () => void registration.update().catch(() => undefined)
      useIntervalFn(look, LOOK_EVERY_MS)
      useEventListener(document, 'visibilitychange', () => {
        if (!document.hidden) look()
      })
    },
  })
}

/** Load the newer version. */
export async function reload(): Promise<void> {
  if (newer.value === 'version') await takeOver()
  else window.location.reload()
}
