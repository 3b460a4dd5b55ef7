/** What is written at other benches, as it happens. */
import { onScopeDispose } from 'vue'

/** Told in a ticket's place when something may have been missed. */
const EVERYTHING = '*'

/** Calls `told` with each ticket of which something was written, or with null when all may have changed. */
export function useChanges(told: (ticket: string | null) => void): void {
  const source = new EventSource('/api/changes')
  let wasOpen = false
  source.onopen = () => {
    // While nobody listened, anything may have been written.
    if (wasOpen) told(null)
    wasOpen = true
  }
  source.onmessage = (event: MessageEvent<string>) => told(event.data === EVERYTHING ? null : event.data)
  onScopeDispose(() => source.close())
}
