import { describe, expect, it } from 'vitest'
import type { BenchSheet, Cell } from '@/api'
import { overtaken } from '@/features/bench/overtaken'

const NOW = new Date().toISOString()
const LONG_AGO = new Date(Date.now() - 11 * 60_000).toISOString()
function sheet(cell: Partial<Cell>, more: Partial<BenchSheet> = {}): BenchSheet {
  const whole = { measure: 'end_height', position: 0, name: "C at the board's end", state: 'current', count: 1, taken_at: NOW, ...cell }
  return { instrument: { visit_id: 'v' }, last_work: 1, cells: [whole], ...more } as unknown as BenchSheet
}
const MINE = { reading_id: 'a', taken_by: 'Ilse Varnholt', value: 5.9 }
const THEIRS = { reading_id: 'b', taken_by: 'Teo Marchetti-Lund', value: 6.1 }

describe('a reading that somebody else took too', () => {
  it('is told to whoever was first', () => {
    expect(overtaken(sheet(MINE), sheet(THEIRS), 'Ilse Varnholt')).toBe(
      "Teo Marchetti-Lund read 6.1 for C at the board's end just now, you read 5.9: theirs stands now.",
    )
  })
  it.each([
    ['is nothing where one corrects oneself', sheet(MINE), sheet({ ...MINE, reading_id: 'c' })],
    ['is nothing to a third', sheet({ ...MINE, taken_by: 'Bram Oyelade' }), sheet(THEIRS)],
    ['is nothing where the same stands', sheet(MINE), sheet({ ...THEIRS, reading_id: 'a' })],
    ['is nothing after a while', sheet({ ...MINE, taken_at: LONG_AGO }), sheet(THEIRS)],
    ['is nothing after a work', sheet(MINE), sheet(THEIRS, { last_work: 2 })],
    ['is nothing where mine held no more', sheet({ ...MINE, state: 'stale' }), sheet(THEIRS)],
    ['is nothing where theirs is one more of the same', sheet(MINE), sheet({ ...THEIRS, count: 2 })],
    ['is nothing where mine was taken back', sheet(MINE), sheet({ reading_id: null, taken_by: null, value: null })],
  ])('%s', (_, before, now) => expect(overtaken(before, now, 'Ilse Varnholt')).toBe(''))
})
