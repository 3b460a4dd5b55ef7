import { describe, expect, it } from 'vitest'
import type { FigureRow } from '@/api'
import { grouped, hasFigure, inWords, nameOfRow } from '@/features/figures/rows'

function row(changes: Partial<FigureRow>): FigureRow {
  return {
    measure: 'nut_spread', label: 'spread at the nut', unit: 'mm', shape: 'band', part: 'nut', question: '', school: '',
    school_label: '', every_size: false, low: null, aim: null, high: null, follows: '', own: false, source: '',
    confirmed_by: null, ...changes,
  }
}

describe('a figure in words', () => {
  it('says a band, a floor, a ceiling, a change, a factor and a ratio as the bench does', () => {
    expect(inWords(row({ low: 4.5, aim: 5, high: 5.5 }))).toBe('4.5 – 5 – 5.5')
    expect(inWords(row({ shape: 'floor', low: 13 }))).toBe('at least 13')
    expect(inWords(row({ shape: 'ceiling', high: 2, unit: '% of aim' }))).toBe('at most 2 % of the aim')
    expect(inWords(row({ shape: 'change', aim: 0.5 }))).toBe('+0.5')
    expect(inWords(row({ shape: 'change', aim: -0.2 }))).toBe('−0.2')
    expect(inWords(row({ shape: 'factor', aim: 1.1, unit: 'times' }))).toBe('× 1.1')
    expect(inWords(row({ shape: 'value', aim: 2 / 3, unit: 'ratio' }))).toBe('2 : 3')
    expect(inWords(row({ shape: 'value', aim: 0.7, unit: 'ratio' }))).toBe('7 : 10')
  })

  it('says that there is none, and 0 is a figure', () => {
    expect(inWords(row({}))).toBe('no figure')
    expect(hasFigure(row({ shape: 'change', aim: 0 }))).toBe(true)
  })
})

describe('figures under their parts', () => {
  const rows = [
    row({ low: 1, aim: 2, high: 3 }),
    row({ part: 'Spread at the nut', question: 'nut_spread', school: 'wide', school_label: 'wide' }),
    row({ part: 'bridge', measure: 'crown_radius', label: 'crown radius' }),
  ]

  it('keeps the order in which parts come', () => {
    expect(grouped(rows, '').map((group) => group.title)).toEqual(['Nut', 'Spread at the nut', 'Bridge'])
  })

  it('finds by every word typed, in any of part, school and measure', () => {
    expect(grouped(rows, 'nut wide').flatMap((group) => group.rows.map(nameOfRow))).toEqual(['wide: spread at the nut'])
    expect(grouped(rows, 'varnish')).toEqual([])
  })
})
