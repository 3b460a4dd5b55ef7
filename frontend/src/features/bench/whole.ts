/** A sheet put together from what the server sends of it and the places of the instrument's card. */
import type { BenchSheet, CardPlace, Cell, CellWire, SheetAnswer } from '@/api'
import { keyOf } from './places'

const EMPTY: Omit<Cell, keyof CardPlace | 'state'> = {
  typed: null,
  value: null,
  assumed: null,
  told: null,
  told_by: '',
  band: null,
  doubt: null,
  stale_because: null,
  reading_id: null,
  taken_by: null,
  taken_at: null,
  tool: null,
  direction: null,
  read: null,
  count: 0,
  last_time: null,
  last_time_at: null,
  repeat_spread: 0,
  spread_is_wide: false,
  is_last_visit: false,
  simulated: false,
  likely: null,
}

export function whole(answer: SheetAnswer, card: CardPlace[]): BenchSheet {
  const sent = new Map<string, CellWire>(answer.cells.map((cell) => [keyOf({ measure: cell.measure, position: cell.position ?? null }), cell]))
  const cells = card.map((place): Cell => ({ ...EMPTY, state: 'missing', ...sent.get(keyOf(place)), ...place }))
  return { ...answer, cells }
}
