/** The courses of measuring: which places are gone through, and how they stand on the page. */
import type { Cell } from '@/api'

export const COURSES = { bridge: 'just what the bridge needs', full: 'in full', recheck: 'a recheck' } as const
export type CourseName = keyof typeof COURSES

/** How the parts stand beside each other, so that the columns are about as long. */
export const COLUMNS: readonly (readonly string[])[] = [['neck', 'bridge'], ['board', 'post and bar'], ['strings', 'tail']]

/** The places of a course in its order; what is there already stays among them, so that it can be read again. */
export function placesOf(cells: readonly Cell[], course: CourseName): Cell[] {
  if (course === 'bridge') return cells.filter((cell) => cell.on_card)
  const asked = course === 'recheck' ? cells.filter((cell) => cell.recheck) : cells
  return [...asked].sort((one, other) => one.turn - other.turn || (one.position ?? 0) - (other.position ?? 0))
}

export interface MeasureLine {
  measure: string
  label: string
  cells: Cell[]
}

/** A part's lines: one for each measure, with its places. */
export function linesOf(cells: readonly Cell[], part: string): MeasureLine[] {
  const lines = new Map<string, MeasureLine>()
  for (const cell of cells) {
    if (cell.part !== part) continue
    const line = lines.get(cell.measure) ?? { measure: cell.measure, label: cell.label, cells: [] }
    line.cells.push(cell)
    lines.set(cell.measure, line)
  }
  return [...lines.values()]
}

/** “31 of 52”: how many of a course's places are read and hold. */
export function progress(cells: readonly Cell[]): string {
  return `${cells.filter((cell) => cell.state === 'taken').length} of ${cells.length}`
}
