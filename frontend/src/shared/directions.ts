/** How a height stands over the board: two tools read it in two directions. */
import type { Cell } from '@/api'
import { t } from '@/words/shared'

type HeightDirection = NonNullable<Cell['direction']>

export const DIRECTION_WORDS: Record<HeightDirection, string> = { vertical: t('straight_up'), shortest: t('the_shortest_way') }

/** Of a column, in words: one direction, or both where one cannot be turned into the other. */
export function directionOf(cells: Cell[]): string {
  const found = new Set(cells.map((cell) => cell.direction))
  const only = found.size === 1 ? [...found][0] : null
  if (only) return DIRECTION_WORDS[only]
  return found.size ? t('some_the_shortest_way') : ''
}
