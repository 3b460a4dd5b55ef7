/** Which instruments are screened, and how the rows are told. */
import type { ScreenCell, ScreenRow, Tag } from '@/api'
import { t } from '@/words/screening'

export const EVERYTHING = 'everything in the house'
export const NEEDS: Record<ScreenRow['needs'], string> = {
  luthier: t('a_luthier'),
  small: t('small_work'),
  nothing: t('nothing'),
  open: t('still_open'),
}

/** The fleets on the rail with how many of each, the largest first. */
export function fleetsOf(tags: readonly Tag[]): { owner: string; count: number }[] {
  const counts = new Map<string, number>()
  for (const tag of tags) if (tag.is_fleet && tag.owner) counts.set(tag.owner, (counts.get(tag.owner) ?? 0) + 1)
  return [...counts].map(([owner, count]) => ({ owner, count })).sort((one, other) => other.count - one.count || one.owner.localeCompare(other.owner))
}

/** The tickets of a fleet, or of everything, as they hang. */
export function ticketsOf(tags: readonly Tag[], of: string): string[] {
  return tags.filter((tag) => of === EVERYTHING || (tag.is_fleet && tag.owner === of)).map((tag) => tag.ticket)
}

/** “4 of 15 need a luthier, 2 small work, 3 nothing, 6 still open.” */
export function tally(rows: readonly ScreenRow[]): string {
  const count = (needs: ScreenRow['needs']) => rows.filter((row) => row.needs === needs).length
  const parts = (['small', 'nothing', 'open'] as const).map((needs) => [count(needs), NEEDS[needs]] as const)
  const rest = parts.filter(([many]) => many).map(([many, words]) => `, ${many} ${words}`).join('')
  return t('of_need_a_luthier', { count: count('luthier'), rows: rows.length, rest })
}

/** Where the next cell of a row is that this instrument has, or the row's end. */
export function nextFitting(cells: readonly ScreenCell[], from: number, by: 1 | -1): number {
  let at = from + by
  while (cells[at] && !cells[at]?.fits) at += by
  return at
}
