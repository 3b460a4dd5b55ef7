/** Readings that an earlier version of the page kept in another way. */
import { nextOrder, type Row } from './rows'

const OLD = 'fidicula.waiting'

interface OldReading {
  ticket: string
  person: string
  body: { id: string; typed: string; taken_at: string; after_work: number | null }
}

/** Each once: they are gone from where they were. */
export function oldReadings(): Row[] {
  try {
    const found = JSON.parse(localStorage.getItem(OLD) ?? '[]') as OldReading[]
    localStorage.removeItem(OLD)
    return found.map(({ ticket, person, body }) => ({
      method: 'POST',
      path: '/api/instruments/{ticket}/readings',
      params: { path: { ticket } },
      body: { ...body, after_work: body.after_work ?? 0, shown: null },
      words: body.typed,
      work: '',
      order: nextOrder(),
      id: body.id,
      person,
      by: '',
      ticket,
      visit: '',
      at: body.taken_at,
      media: '',
      size: 0,
      state: 'waiting',
      says: '',
      fields: {},
      failed: 0,
      again: 0,
    }))
  } catch {
    return []
  }
}
