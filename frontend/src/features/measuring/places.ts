/** How the places of a course lie on the page, and how the arrows go between them. */
import type { BenchSheet, Cell } from '@/api'
import { keyOf } from '@/features/bench'

/** Up and down a measure, left and right a place; at an end the course goes on. */
export function neighbourIn(cells: Cell[], key: string, direction: 'ArrowLeft' | 'ArrowRight' | 'ArrowUp' | 'ArrowDown'): string {
  const at = cells.findIndex((cell) => keyOf(cell) === key)
  const here = cells[at]
  if (!here) return key
  let to = at
  if (direction === 'ArrowLeft') to = at - 1
  else if (direction === 'ArrowRight') to = at + 1
  else {
    const by = direction === 'ArrowDown' ? 1 : -1
    while (cells[to]?.measure === here.measure) to += by
    const other = cells[to]?.measure
    const first = cells.findIndex((cell) => cell.measure === other)
    if (first >= 0) to = first
  }
  const next = cells[to]
  return next ? keyOf(next) : key
}

/** A left-handed instrument's strings stand mirrored, as one sees them. */
export function seen(line: Cell[], sheet: BenchSheet | null): Cell[] {
  const isOfStrings = sheet?.instrument.string_names.length === line.length && line[0]?.place === sheet.instrument.string_names[0]
  return isOfStrings && sheet.instrument.left_handed ? [...line].reverse() : line
}
