/** Whether the server answers: found out with every question, and asked by itself while it does not. */
import { reactive, readonly } from 'vue'
import type { Refused } from './refused'

const ASK_EVERY_MS = 2500
const LONGEST_MS = 8000

const state = reactive({ isAway: false, because: '' })
const back = new Set<() => void>()
let timer: ReturnType<typeof setTimeout> | undefined

/** because : what a server that answers waits for itself: its database, room on its disk. */
export const reach = readonly(state)

/** Called each time that the server is there again. */
export function onBack(call: () => void): () => void {
  back.add(call)
  return () => back.delete(call)
}

export function noteAnswer(): void {
  if (!state.isAway) return
  Object.assign(state, { isAway: false, because: '' })
  clearTimeout(timer)
  timer = undefined
  for (const call of back) call()
}

/** error : what came instead of an answer; null where only what was last seen could be given. */
export function noteAway(error: Refused | null): void {
  // Up to its second half, which says what happens to what was typed: that is said here already.
  Object.assign(state, { isAway: true, because: error !== null && error.status >= 503 ? (error.message.split(/[;.]/)[0] ?? '') : '' })
  timer ??= setTimeout(() => void askAgain(), ASK_EVERY_MS)
}

async function askAgain(): Promise<void> {
  timer = undefined
  let isThere = false
  try {
    isThere = (await fetch('/api/health', { cache: 'no-store', signal: AbortSignal.timeout(LONGEST_MS) })).ok
  } catch {
    // Still away.
  }
  if (isThere) noteAnswer()
  else timer ??= setTimeout(() => void askAgain(), ASK_EVERY_MS)
}
