/** Figures as they stand on their page: grouped, found by words, and said in numbers. */
import type { FigureRow } from '@/api'
import { plain } from '@/shared/format'
import { t } from '@/words/figures'

export interface FigureGroup {
  title: string
  rows: FigureRow[]
}

/** One row among all of a page. */
export function keyOfRow(row: FigureRow): string {
  return [row.measure, row.question, row.school].join('/')
}

export function hasFigure(row: FigureRow): boolean {
  return row.low !== null || row.aim !== null || row.high !== null
}

/** What a row is called in full: its school, where it belongs to one, then its measure. */
export function nameOfRow(row: FigureRow): string {
  return row.school_label ? `${row.school_label}: ${row.label}` : row.label
}

const SAID_AFTER: Record<string, string> = { degrees: '°', '% of aim': ` ${t('of_the_aim')}` }

/** A ratio as the bench says it: 2 : 3, where it is one of small numbers. */
function asRatio(value: number): string {
  for (let of = 1; of <= 12; of++) {
    const whole = Math.round(value * of)
    if (Math.abs(whole / of - value) < 0.0005) return `${whole} : ${of}`
  }
  return plain(value)
}

/** The figure in words: a band, a floor, a ceiling, or one value with its unit. Millimetres go without saying. */
export function inWords(row: FigureRow): string {
  if (!hasFigure(row)) return t('no_figure')
  const after = SAID_AFTER[row.unit] ?? ''
  const before = row.unit === 'times' ? '× ' : ''
  const say = (value: number | null) => (value === null ? '' : plain(value))
  switch (row.shape) {
    case 'floor':
      return t('at_least_2', { say: say(row.low), after })
    case 'ceiling':
      return t('at_most_2', { say: say(row.high), after })
    case 'change':
      return `${(row.aim ?? 0) > 0 ? '+' : ''}${say(row.aim)}${after}`
    default: {
      if (row.unit === 'ratio' && row.aim !== null) return asRatio(row.aim)
      const range = row.low === null ? say(row.aim) : `${say(row.low)} – ${say(row.aim)} – ${say(row.high)}`
      return `${before}${range}${after}`
    }
  }
}

/** Rows under their parts, in the order in which the parts first come; only those that hold every word. */
export function grouped(rows: FigureRow[], words: string): FigureGroup[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean)
  const groups = new Map<string, FigureRow[]>()
  for (const row of rows) {
    const text = [row.part, row.school_label, row.label, row.measure.replaceAll('_', ' ')].join(' ').toLowerCase()
    if (!wanted.every((word) => text.includes(word))) continue
    groups.set(row.part, [...(groups.get(row.part) ?? []), row])
  }
  return [...groups].map(([title, of]) => ({ title: title.charAt(0).toUpperCase() + title.slice(1), rows: of }))
}
