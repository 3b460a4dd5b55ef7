/** A reading that leaps stops where it was typed, until somebody says what it is. */
import type { Cell } from '@/api'
import { MM_PER_INCH } from '@/shared/inches'

export interface Stop {
  place: string
  /** Of the reading that was taken. */
  id: string
  typed: string
}

const NUMBER = /^(?<number>[+\-−]?(?:\d+(?:[.,]\d*)?|[.,]\d+))\s*(?<unit>[a-z°%"″]*)(?:\s+[a-z]+)?$/i
const FRACTION = /^(?<sign>[+\-−]?)(?:(?<whole>\d{1,3})[ \-+]\s*)?(?<over>\d{1,3})[/⁄](?<under>2|4|8|16|32|64)\s*(?:in|inch|"|″)?$/i
/** What a unit of length is in mm; what stands behind digits and is none of these is of the measure itself. */
const LENGTHS: Record<string, number> = { mm: 1, cm: 10, in: MM_PER_INCH, inch: MM_PER_INCH, '"': MM_PER_INCH, '″': MM_PER_INCH }

/** What was typed, with either decimal mark, in mm where it is a length with its unit; null for what is no number. */
export function numberOf(typed: string): number | null {
  const text = typed.trim()
  const fraction = FRACTION.exec(text)?.groups
  if (fraction) {
    const inches = Number(fraction.whole ?? 0) + Number(fraction.over) / Number(fraction.under)
    return (fraction.sign === '-' || fraction.sign === '−' ? -inches : inches) * MM_PER_INCH
  }
  const found = NUMBER.exec(text)?.groups
  return found ? Number(found.number?.replace(',', '.').replace('−', '-')) * (LENGTHS[(found.unit ?? '').toLowerCase()] ?? 1) : null
}

/** Whether what was typed will be asked about, as far as that is known here. */
export function leaps(cell: Pick<Cell, 'likely'>, typed: string): boolean {
  const value = numberOf(typed)
  if (value === null || cell.likely === null) return false
  const [low = -Infinity, high = Infinity] = cell.likely
  return value < low || value > high
}
