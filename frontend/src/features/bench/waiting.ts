/** Readings that wait in this browser until the server has them. */
import type { ReadingBody } from '@/api'

export interface Waiting {
  ticket: string
  /** Who took it, which may be someone else than who is at the bench when it is sent. */
  person: string
  /** `after_work` is null for a reading taken while a work was on its way: its number is not known yet. */
  body: Omit<ReadingBody, 'after_work'> & { after_work: number | null }
}

/** paperAt : when it was written on a card, empty for a reading of now.  shown : the reading that stood there. */
export interface Manner {
  shown?: string | null
  repeats?: boolean
  simulated?: boolean
  tool?: string
  paperAt?: string
}

export function without(record: Record<string, string>, key: string): Record<string, string> {
  return Object.fromEntries(Object.entries(record).filter(([name]) => name !== key))
}
