/** Which places a course of measuring goes through. */
import { describe, expect, it } from 'vitest'
import type { Cell } from '@/api'
import { inTwoColumns } from '@/features/measuring/columns'
import { courseWith, placesOf } from '@/features/measuring/courses'

function cell(measure: string, form: string, more: Partial<Cell> = {}): Cell {
  return { measure, position: null, form, on_card: false, recheck: false, turn: 0, ...more } as Cell
}
const cells = [
  cell('end_height', '', { on_card: true, turn: 2, recheck: true }),
  cell('nut_spread', 'spread', { on_card: true, turn: 3 }),
  cell('string_mark_nut', 'marks', { turn: 4 }),
  cell('string_gap_nut', 'gaps', { turn: 5 }),
  cell('neck_length', '', { turn: 1 }),
  cell('arch_height', 'load', { turn: 6 }),
]
const named = (found: Cell[]) => found.map(({ measure }) => measure)

describe('a course of measuring', () => {
  it('reads spacing in one way alone', () => {
    expect(named(placesOf(cells, 'full', 'spread'))).toEqual(['neck_length', 'end_height', 'nut_spread'])
    expect(named(placesOf(cells, 'full', 'marks'))).toEqual(['neck_length', 'end_height', 'string_mark_nut'])
  })

  it('takes what a bridge needs, what comes back is asked, and what presses by itself', () => {
    expect(named(placesOf(cells, 'bridge', 'gaps'))).toEqual(['end_height', 'nut_spread'])
    expect(named(placesOf(cells, 'recheck'))).toEqual(['end_height'])
    expect(named(placesOf(cells, 'load'))).toEqual(['arch_height'])
  })

  it('is changed only where the place that is wanted is not on it', () => {
    const key = ({ measure }: Cell) => measure
    expect(courseWith(cells, key, 'end_height', 'bridge', 'spread')).toBe('bridge')
    expect(courseWith(cells, key, 'arch_height', 'full', 'spread')).toBe('load')
    expect(courseWith(cells, key, 'polish', 'full', 'spread')).toBeNull()
  })

  it('goes down one column and on in the next, as even as parts allow, and tears one rather than leave half a page empty', () => {
    const of = (part: string, count: number) => Array.from({ length: count }, (_, i) => cell(`${part}${i}`, '', { part, label: '' }))
    const shown = (some: Cell[]) =>
      inTwoColumns(some).map((column) => column.map(({ part, lines, goesOn }) => `${goesOn ? '…' : ''}${part} ${lines.length}`))
    expect(shown([...of('strings', 6), ...of('board', 2), ...of('neck', 3)])).toEqual([['neck 3', 'board 2'], ['strings 6']])
    expect(shown([...of('neck', 6), ...of('board', 2), ...of('strings', 2)])).toEqual([['neck 6'], ['board 2', 'strings 2']])
    expect(shown([...of('neck', 5), ...of('board', 14), ...of('tail', 3)])).toEqual([['neck 5', 'board 6'], ['…board 8', 'tail 3']])
    expect(shown([...of('board', 3)])).toEqual([['board 3']])
    expect(shown(of('tail', 12))).toEqual([['tail 6'], ['…tail 6']])
    expect(shown([])).toEqual([])
  })
})
