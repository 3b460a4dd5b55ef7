import { describe, expect, it } from 'vitest'
import type { Tag } from '@/api'
import { inOrder } from '@/features/rail/order'

function tag(ticket: string, more: Partial<Tag>): Tag {
  return {
    ticket, family: 'violin', size: '4/4', owner: '', left_handed: false, is_fleet: false, complaint: '', kind: 'bridge',
    step: 'crown', waits_for: '', waits_until: null, deadline: null, promised: null, opened_at: '2026-11-20T10:00:00Z', of_owner: false, done: [], ...more,
  }
}

const TAGS = [
  tag('RW-1', {}),
  tag('RW-2', { deadline: '2026-12-09', promised: '2026-12-01' }),
  tag('RW-3', { step: '', waits_for: 'settle', waits_until: '2026-11-26T10:00:00Z' }),
  tag('RW-4', { deadline: '2026-12-04', waits_for: 'nut', waits_until: '2026-11-25T20:00:00Z' }),
]
const tickets = (tags: Tag[]) => tags.map((one) => one.ticket.slice(3)).join('')

describe('the order of the tags', () => {
  it('is that of the tickets, as they came', () => {
    expect(tickets(inOrder(TAGS, 'ticket'))).toBe('1234')
  })
  it('by the day it is due takes what comes first of needed and promised; without a day comes last', () => {
    expect(tickets(inOrder(TAGS, 'due'))).toBe('2413')
  })
  it('by what waits begins with the wait that is over first', () => {
    expect(tickets(inOrder(TAGS, 'waiting'))).toBe('4312')
  })
  it('for the bench puts last what nobody can work on now', () => {
    expect(tickets(inOrder(TAGS, 'bench'))).toBe('2413')
  })
})
