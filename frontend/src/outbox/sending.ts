/** Sends rows one after the other, and says what became of each. Knows nothing of pages; one tab sends for all. */
import { Refused } from '@/api/refused'
import type { Keep } from './keep'
import type { Row } from './rows'

/** After so many failures of the server at one row, somebody looks at it. */
const FAILS_AT_MOST = 4
const FAILED_AGAIN_MS = 4000
/** Read from the store at once. */
const CHUNK = 25
const AGAIN_MS = [1000, 2000, 4000, 8000, 15_000, 30_000]

export type Outcome =
  | { kind: 'sent'; answer: unknown }
  | { kind: 'refused'; error: Refused }
  | { kind: 'held' }
  /** The server failed at this one, which is tried again; the others go on. */
  | { kind: 'failed' }
  /** Nothing can be sent now; the row waits. */
  | { kind: 'waits' }

export interface Sending {
  keep: Keep
  /** more : whether another of the same kind and instrument waits behind it, whose answer tells all of this one's. */
  send: (row: Row, blob: Blob | undefined, more: boolean) => Promise<unknown>
  /** Told of each row once something became of it. */
  told: (row: Row, outcome: Outcome) => void
  /** Whether somebody in this tab waits for what the server says to a row, and shows a refusal itself. */
  isAwaited: (row: Row) => boolean
  /** Whether somebody dropped it meanwhile. */
  isDropped?: (row: Row) => boolean
  /** Lets no other tab withdraw a row meanwhile. */
  whileHeld?: <Done>(row: Row, act: () => Promise<Done>) => Promise<Done>
  now?: () => number
}

export interface Sender {
  /** Send everything that can be sent. Persons whose PIN was missing are asked for again where `again`. */
  pump: (again?: boolean) => Promise<void>
  /** When to try again by itself, in ms; null where nothing waits or only somebody's act helps. */
  delay: () => number | null
}

export function makeSender({ keep, send, told, isAwaited, isDropped = () => false, whileHeld = (_, act) => act(), now = Date.now }: Sending): Sender {
  let tries = 0
  let wait: number | null = null
  /** What was sent is taken out while the next is on its way; cut off in between, it is sent once more and changes nothing. */
  let dropping: Promise<void>[] = []

  async function pump(again = false): Promise<void> {
    wait = null
    if (again) await release()
    try {
      await sendAll()
    } finally {
      await Promise.all(dropping)
      dropping = []
    }
  }

  async function sendAll(): Promise<void> {
    let later: number | null = null
    for (let chunk = await keep.some(0, CHUNK); chunk.length; chunk = await keep.some((chunk.at(-1)?.order ?? 0) + 1, CHUNK)) {
      for (const [i, row] of chunk.entries()) {
        if (row.state !== 'waiting' || isDropped(row)) continue
        if (row.again > now()) later = Math.min(later ?? Infinity, row.again - now())
        else if (!(await whileHeld(row, () => one(row, chunk[i + 1])))) return
      }
    }
    wait = later
  }

  /** Whether the next one may be tried. behind : what waits next. */
  async function one(row: Row, behind: Row | undefined): Promise<boolean> {
    // Withdrawn here or in another tab since it was read.
    if (isDropped(row) || !(await keep.has(row))) return true
    try {
      const more = behind?.state === 'waiting' && behind.path === row.path && behind.ticket === row.ticket && !isAwaited(row)
      const answer = await send(row, row.media ? await keep.blob(row.id) : undefined, more)
      tries = 0
      dropping.push(keep.drop(row))
      told(row, { kind: 'sent', answer })
      return true
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      return refused(row, error)
    }
  }

  async function refused(row: Row, error: Refused): Promise<boolean> {
    if (error.status === 401) {
      told(row, { kind: 'waits' })
      return false
    }
    if (error.status === 500 && row.failed < FAILS_AT_MOST) {
      // The server stumbles over this one; what is behind it goes on.
      const changed = { ...row, failed: row.failed + 1, again: now() + FAILED_AGAIN_MS * 2 ** row.failed, says: error.message }
      await keep.change(changed)
      told(changed, { kind: 'failed' })
      return true
    }
    if (error.away && error.status !== 500) {
      told(row, { kind: 'waits' })
      wait = AGAIN_MS[Math.min(tries, AGAIN_MS.length - 1)] ?? 1000
      tries += 1
      return false
    }
    if (error.status === 403 && !isAwaited(row)) {
      const changed: Row = { ...row, state: 'held', says: error.message }
      await keep.change(changed)
      told(changed, { kind: 'held' })
      return true
    }
    if (isAwaited(row)) await keep.drop(row)
    const changed: Row = { ...row, state: 'refused', says: error.message, fields: error.fields }
    if (!isAwaited(row)) await keep.change(changed)
    told(changed, { kind: 'refused', error })
    return true
  }

  async function release(): Promise<void> {
    for (const row of await keep.all()) if (row.state === 'held') await keep.change({ ...row, state: 'waiting' })
  }

  return { pump, delay: () => wait }
}
