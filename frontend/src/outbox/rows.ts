/** What somebody entered, as it waits in this browser until the server has it. */
export type RowState =
  /** On its way, or waiting for a server that answers. */
  | 'waiting'
  /** Waits for the PIN of whoever entered it. */
  | 'held'
  /** The server said no: whoever entered it corrects or drops it. */
  | 'refused'

/** What is to be asked of the server. The body holds an id that was made once: sent twice, it is written once. */
export interface Act {
  method: 'POST' | 'PUT' | 'PATCH'
  /** As in the API's description: '/api/instruments/{ticket}/works'. */
  path: string
  params: { path?: Record<string, unknown>; query?: Record<string, unknown> }
  body?: unknown
  /** A photograph or a recording instead of a body. */
  blob?: Blob
  /** What it is, for whoever looks at what waits. */
  words: string
  /** The id of the work that it writes down, for readings that are taken after it; empty for no work. */
  work: string
}

export interface Row extends Omit<Act, 'blob'> {
  /** Grows with each entry of this browser. */
  order: number
  id: string
  /** Who entered it: id and name. */
  person: string
  by: string
  /** Of the instrument it was entered at, and its visit; empty where it belongs to none. */
  ticket: string
  visit: string
  at: string
  /** Kind and size of a photograph or recording; empty and 0 for none. */
  media: string
  size: number
  state: RowState
  /** Why it was refused or is held, and which fields are at fault. */
  says: string
  fields: Record<string, string>
  /** How often the server failed at it, and when it is tried again. */
  failed: number
  again: number
}

let last = 0
/** Greater than every order before it, also after a reload. */
export function nextOrder(): number {
  last = Math.max(last + 1, Date.now() * 1000)
  return last
}
