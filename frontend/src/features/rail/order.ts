/** In which order the tags hang. */
import type { Tag } from '@/api'
import { t } from '@/words/rail'

export const RAIL_ORDERS = { ticket: t('by_ticket'), due: t('by_the_day_it_is'), waiting: t('what_waits_longest_last'), bench: t('what_can_be_worked_on') } as const
export type RailOrder = keyof typeof RAIL_ORDERS

const NEVER = '9999'

/** The day by which something is owed: needed or promised, whichever comes first; one without a day comes last. */
function due(tag: Tag): string {
  return [tag.deadline, tag.promised].filter((one): one is string => one !== null).sort()[0] ?? NEVER
}

/** Sorted again, those that are the same in this order staying as they were. */
export function inOrder(tags: readonly Tag[], order: RailOrder): Tag[] {
  const key: Record<Exclude<RailOrder, 'ticket'>, (tag: Tag) => string> = {
    due,
    waiting: (tag) => tag.waits_until ?? NEVER,
    bench: (tag) => `${tag.step === '' ? 1 : 0}${due(tag)}`,
  }
  if (order === 'ticket') return [...tags]
  const of = key[order]
  return [...tags].sort((one, other) => of(one).localeCompare(of(other)))
}
