/** The rows of the house: in an order, or by whose turn it is. */
import type { Tag } from '@/api'
import { t } from '@/words/house'

export const HOUSE_ORDERS = { hand: t('next_hand'), ticket: t('ticket'), owner: t('owner'), due: t('day_it_is_due') } as const
export type HouseOrder = keyof typeof HOUSE_ORDERS

export interface Group {
  hand: 'ready' | 'waiting' | 'owner' | ''
  name: string
  tags: Tag[]
}

const NEVER = '9999'
/** The day by which something is owed, needed or promised, whichever comes first; one without a day comes last. */
export const dueOf = (tag: Tag): string => [tag.deadline, tag.promised].filter((one): one is string => one !== null).sort()[0] ?? NEVER

const isWaiting = (tag: Tag, now: number) => tag.waits_until !== null && Date.parse(tag.waits_until) > now

export function groupsOf(tags: readonly Tag[], order: HouseOrder, now: number): Group[] {
  const by = (key: (tag: Tag) => string) => [...tags].sort((one, other) => key(one).localeCompare(key(other), undefined, { numeric: true }))
  if (order === 'ticket') return [{ hand: '', name: '', tags: by((tag) => tag.ticket) }]
  if (order === 'owner') return [{ hand: '', name: '', tags: by((tag) => `${tag.owner || '~'} ${tag.ticket}`) }]
  const due = by((tag) => `${dueOf(tag)} ${tag.ticket}`)
  if (order === 'due') return [{ hand: '', name: '', tags: due }]
  const waiting = due.filter((tag) => isWaiting(tag, now)).sort((one, other) => (one.waits_until ?? '').localeCompare(other.waits_until ?? ''))
  const owner = due.filter((tag) => tag.of_owner && !isWaiting(tag, now))
  const ready = due.filter((tag) => !tag.of_owner && !isWaiting(tag, now))
  const groups: Group[] = [
    { hand: 'ready', name: t('ready'), tags: ready },
    { hand: 'waiting', name: t('waiting'), tags: waiting },
    { hand: 'owner', name: t('with_owner'), tags: owner },
  ]
  return groups.filter((group) => group.tags.length)
}
