/** How the parts of a card stand in its columns, and the places of a measure in its rows. */
import type { Cell } from '@/api'
import { linesOf, PARTS, type MeasureLine } from './courses'

/** A part of the card, or as much of it as stands in one column. */
export interface CardPart {
  part: string
  lines: MeasureLine[]
  /** Goes on from the column before. */
  goesOn: boolean
}

const HEADING = 0.75
/** How much longer a column may get, in lines of one place, rather than that a part is torn. */
const WHOLE_IS_WORTH = 3

/** What a measure takes of a column, in lines of one place: where it has several, its name stands above their rows. */
function heightOf({ cells }: MeasureLine): number {
  return cells.length === 1 ? 1 : 0.5 + 1.3 * Math.ceil(cells.length / inRow(cells))
}

function columnOf(lines: readonly [string, MeasureLine][], before: string | undefined): CardPart[] {
  const column: CardPart[] = []
  for (const [part, line] of lines) {
    if (column.at(-1)?.part === part) column.at(-1)?.lines.push(line)
    else column.push({ part, lines: [line], goesOn: part === before })
  }
  return column
}

/** The parts in their order, down one column and on in the next, so that neither is much higher than it must be.
 *
 * Said here and not left to the browser: columns that it fills are laid out as a whole with every letter typed. A part
 * is torn where whole ones would leave one column a good deal longer, never so that one line of it stands alone.
 */
export function inTwoColumns(cells: readonly Cell[]): CardPart[][] {
  const lines = PARTS.flatMap((part) => linesOf(cells, part).map((line): [string, MeasureLine] => [part, line]))
  const split = (at: number) => [columnOf(lines.slice(0, at), undefined), columnOf(lines.slice(at), lines[at - 1]?.[0])]
  const height = (column: CardPart[]) =>
    column.reduce((sum, part) => sum + HEADING + part.lines.reduce((more, line) => more + heightOf(line), 0), 0)
  let best = split(lines.length)
  let least = Infinity
  for (let at = 1; at <= lines.length; at += 1) {
    const columns = split(at)
    const torn = columns[1]?.[0]?.goesOn ?? false
    if (torn && Math.min(columns[0]?.at(-1)?.lines.length ?? 0, columns[1]?.[0]?.lines.length ?? 0) < 2) continue
    const cost = Math.max(...columns.map(height)) + (torn ? WHOLE_IS_WORTH : 0)
    if (cost < least) [least, best] = [cost, columns]
  }
  return best.filter((column) => column.length)
}

/** How many places stand beside each other: strings all, sides in rows of three. */
export function inRow(line: Cell[]): number {
  if (line.length === 1) return 1
  return line.length === 3 || (line.length === 6 && line[0]?.measure === 'relief') ? 3 : Math.max(4, line.length)
}
