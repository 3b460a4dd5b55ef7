/** Places on the bench card: their keys, and how the arrows go from one to the next. */

/** Where something is read, as a key is made of it: what was typed and kept here need be no measure any more. */
export interface Place {
  measure: string
  position: number | null
}

export const STRING_ROWS = ['end_height', 'nut_height', 'slot_depth'] as const

export function keyOf(cell: Place): string {
  return cell.position === null ? cell.measure : `${cell.measure}:${cell.position}`
}

const HUNDREDTHS: readonly string[] = ['end_height', 'nut_height', 'slot_depth', 'relief']

/** A height keeps its hundredths; what is measured by a rule has no use for them. */
export function decimalsOf(cell: Pick<Place, 'measure'>): 1 | 2 {
  return HUNDREDTHS.includes(cell.measure) ? 2 : 1
}

export type Direction = 'ArrowLeft' | 'ArrowRight' | 'ArrowUp' | 'ArrowDown'

interface Grid {
  strings: number
  leftHanded: boolean
  singles: string[]
}

/** The key of the place that an arrow leads to from `key`; the same key at an edge. */
export function neighbour(key: string, direction: Direction, grid: Grid): string {
  const single = grid.singles.indexOf(key)
  if (single >= 0) return fromSingle(single, direction, grid) ?? key
  const [measure = '', position = '0'] = key.split(':')
  const row = STRING_ROWS.findIndex((name) => name === measure)
  const column = seen(Number(position), grid)
  if (direction === 'ArrowRight' && column === grid.strings - 1) return grid.singles[row] ?? key
  const across = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: 0, ArrowDown: 0 }[direction]
  const down = { ArrowLeft: 0, ArrowRight: 0, ArrowUp: -1, ArrowDown: 1 }[direction]
  return stringKey(row + down, column + across, grid) ?? key
}

function fromSingle(index: number, direction: Direction, grid: Grid): string | undefined {
  if (direction === 'ArrowUp') return grid.singles[index - 1]
  if (direction === 'ArrowDown') return grid.singles[index + 1]
  if (direction === 'ArrowLeft') return stringKey(Math.min(index, STRING_ROWS.length - 1), grid.strings - 1, grid)
  return undefined
}

function stringKey(row: number, column: number, grid: Grid): string | undefined {
  const measure = STRING_ROWS[row]
  if (measure === undefined || column < 0 || column >= grid.strings) return undefined
  return `${measure}:${seen(column, grid)}`
}

/** A left-handed instrument's strings stand mirrored on the card: column and position change places. */
function seen(index: number, grid: Grid): number {
  return grid.leftHanded ? grid.strings - 1 - index : index
}
