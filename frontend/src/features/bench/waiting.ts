/** Readings that wait in this browser until the server has them. */
import type { ReadingBody } from '@/api'
import type { Row } from '@/outbox'

export const READINGS = '/api/instruments/{ticket}/readings'

export interface Waiting {
  ticket: string
  row: Row
  body: ReadingBody
}

/** paperAt : when it was written on a card, empty for a reading of now.  shown : the reading that stood there. */
export interface Manner {
  shown?: string | null
  repeats?: boolean
  simulated?: boolean
  tool?: string
  paperAt?: string
}
