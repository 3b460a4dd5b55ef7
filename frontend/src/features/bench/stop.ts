/** A reading that leaps stops where it was typed, until somebody says what it is. */
import type { Cell } from '@/api'

export interface Stop {
  place: string
  /** Of the reading that was taken. */
  id: string
  typed: string
}

/** The number that was typed, with either decimal mark and whatever unit; null for what is none. */
export function numberOf(typed: string): number | null {
  const found = /^[+\-−]?(\d+([.,]\d*)?|[.,]\d+)/.exec(typed.trim())
  return found ? Number(found[0].replace(',', '.').replace('−', '-')) : null
}

/** Whether what was typed will be asked about, as far as that is known here. */
export function leaps(cell: Pick<Cell, 'likely'>, typed: string): boolean {
  const value = numberOf(typed)
  if (value === null || cell.likely === null) return false
  const [low = -Infinity, high = Infinity] = cell.likely
  return value < low || value > high
}
