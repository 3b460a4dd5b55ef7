/**
 * What is written at other benches, as it happens. One stream serves every open tab of this browser: a browser has few
 * connections, and each stream holds one for good. A hidden page gives its turn away and looks at all again once it shows.
 */
import { onScopeDispose, shallowRef } from 'vue'

/** The ticket of which something was written last, here or at another bench; null for all. Told again with each. */
export const changed = shallowRef<{ ticket: string | null }>({ ticket: null })

const ADDRESS = '/api/changes'
const SHARED = 'fidicula-changes'
/** Told in a ticket's place when something may have been missed. */
const EVERYTHING = '*'
const AGAIN_AFTER_MS = 3000

/** Calls `told` with each ticket of which something was written, or with null when all may have changed. */
export function useChanges(told: (ticket: string | null) => void): void {
  const others = new BroadcastChannel(SHARED)
  /** Gives this page's turn back, or its place among those that wait for one; null while it has neither. */
  let giveUp: (() => void) | null = null

  const tell = (ticket: string) => {
    changed.value = { ticket: ticket === EVERYTHING ? null : ticket }
    told(changed.value.ticket)
  }
  others.onmessage = (event: MessageEvent<string>) => tell(event.data)

  function takeTurns(): void {
    if (giveUp !== null || document.hidden) return
    const turn = new AbortController()
    giveUp = () => {
      turn.abort()
      giveUp = null
    }
    if (!('locks' in navigator)) {
      void listen(turn.signal)
      return
    }
    navigator.locks
      .request(SHARED, { signal: turn.signal }, () => listen(turn.signal))
      .catch((error: unknown) => {
        if (!turn.signal.aborted) throw error
      })
  }

  /** Listens for everybody until the turn ends. */
  function listen(ends: AbortSignal): Promise<void> {
    return new Promise((resolve) => {
      let source: EventSource | null = null
      let again: ReturnType<typeof setTimeout> | undefined
      let isFirst = true
      const pass = (ticket: string) => {
        others.postMessage(ticket)
        tell(ticket)
      }
      const open = () => {
        source = new EventSource(ADDRESS)
        source.onopen = () => {
          // Between two listeners, or while nobody listened, anything may have been written.
          others.postMessage(EVERYTHING)
          if (!isFirst) told(null)
          isFirst = false
        }
        source.onmessage = (event: MessageEvent<string>) => pass(event.data)
        source.onerror = () => {
          if (source?.readyState === EventSource.CLOSED) again = setTimeout(open, AGAIN_AFTER_MS)
        }
      }
      ends.addEventListener('abort', () => {
        clearTimeout(again)
        source?.close()
        resolve()
      })
      open()
    })
  }

  function onShown(): void {
    if (document.hidden) {
      giveUp?.()
      return
    }
    told(null)
    takeTurns()
  }
  document.addEventListener('visibilitychange', onShown)
  takeTurns()
  onScopeDispose(() => {
    document.removeEventListener('visibilitychange', onShown)
    giveUp?.()
    others.close()
  })
}
