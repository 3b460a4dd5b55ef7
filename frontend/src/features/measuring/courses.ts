/** The courses of measuring: which places are gone through, and how they stand on the page. */
import type { Cell } from '@/api'
import { t } from '@/words/measuring'

export const COURSES = { bridge: t('bridge_only'), full: t('full'), recheck: t('recheck'), load: t('load'), shape: t('neck_board_bridge_shape'), pegs: 'nut and pegs', place: t('where_the_bridge_goes'), cards: t('nut_by_cards'), diameters: t('string_thickness'), post: t('post_position') } as const
export type CourseName = keyof typeof COURSES

/** How the parts stand beside each other, so that the columns are about as long. */
export const PARTS: readonly string[] = ['the day', 'neck', 'bridge', "bridge's place", 'what presses', 'nut and pegs', 'board', 'post and bar', 'strings', 'spacing', 'tail']

/** Ways to read where strings sit; each can be told by the others. */
export const SPACING_WORDS = { spread: t('spreads_only'), marks: t('marks_from_the_edge'), centres: t('centre_to_centre'), gaps: t('gaps') } as const
export type SpacingForm = keyof typeof SPACING_WORDS
export const SPACING_FORMS = Object.keys(SPACING_WORDS) as SpacingForm[]

/** The course that a place is part of, the present one where it is; null where no course goes by it. */
export function courseWith(cells: readonly Cell[], key: (cell: Cell) => string, place: string, now: CourseName, form: SpacingForm): CourseName | null {
  const names = [now, ...(Object.keys(COURSES) as CourseName[])]
  return names.find((name) => placesOf(cells, name, form).some((cell) => key(cell) === place)) ?? null
}

/** The places of a course in its order; what is there already stays among them, so that it can be read again. */
export function placesOf(cells: readonly Cell[], course: CourseName, form: SpacingForm = 'spread'): Cell[] {
  if (course === 'bridge') return cells.filter((cell) => cell.on_card)
  if (course === 'load' || course === 'pegs' || course === 'shape' || course === 'place' || course === 'cards' || course === 'diameters') return cells.filter((cell) => cell.form === course).sort((one, other) => one.turn - other.turn)
  if (course === 'post') return cells.filter((cell) => cell.measure.startsWith('post_')).sort((one, other) => (one.position ?? 0) - (other.position ?? 0))
  const asked = cells.filter((cell) => (course === 'recheck' ? cell.recheck : !cell.form || cell.form === form))
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
  return t('of', { current: cells.filter((cell) => cell.state === 'current').length, cells: cells.length })
}
