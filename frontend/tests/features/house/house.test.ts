/** The house across time: where a moment stands, and whose turn it is. */
import { describe, expect, it } from 'vitest'
import type { Tag } from '@/api'
import { axisOf } from '@/features/house/axis'
import { groupsOf } from '@/features/house/groups'

const NOW = new Date(2026, 10, 27, 13, 0).getTime()
const at = (day: number, hour: number) => new Date(2026, 10, day, hour, 0).getTime()

function tag(ticket: string, more: Partial<Tag> = {}): Tag {
  return {
    ticket, family: 'violin', size: '4/4', owner: '', left_handed: false, is_fleet: false, complaint: '', kind: 'bridge', step: 'cut the crown',
    waits_for: '', waits_until: null, deadline: null, promised: null, opened_at: '2026-11-20T10:00:00Z', of_owner: false, done: [], ...more,
  }
}

describe('the axis', () => {
  const axis = axisOf(NOW, at(20, 10))

  it('never runs backwards, and ends within the row', () => {
    const moments = [20, 24, 26, 27, 28, 29, 30].flatMap((day) => [2, 9, 12, 17, 23].map((hour) => at(day, hour))).filter((when) => when >= at(20, 10))
    const places = moments.map(axis.at)
    expect([...places].sort((one, other) => one - other)).toEqual(places)
    expect(axis.at(at(20, 10))).toBe(0)
    expect(axis.at(new Date(2027, 5, 1).getTime())).toBeLessThan(1)
  })

  it('gives today its hours: at one, half of it is over', () => {
    expect(axis.now).toBeCloseTo((axis.today + axis.ends) / 2)
    expect(axis.at(at(27, 8))).toBeCloseTo(axis.today)
    expect(axis.at(at(27, 20))).toBeCloseTo(axis.ends)
  })

  it('gives each of the next five days as much', () => {
    const noons = axis.days.map((day) => axis.at(day.when) - day.at)
    for (const noon of noons) expect(noon).toBeCloseTo(noons[0] ?? 0)
    expect(axis.days).toHaveLength(5)
    expect(axis.at(axis.days[4]?.when ?? 0)).toBeLessThan(axis.later)
  })
})

describe('the next hand', () => {
  it('is asked first where nothing is waited for, by the day it is due', () => {
    const tags = [
      tag('RW-1', { waits_until: '2026-11-28T09:00:00Z', waits_for: 'settle' }),
      tag('RW-2', { of_owner: true }),
      tag('RW-3', { promised: '2026-12-05' }),
      tag('RW-4', { promised: '2026-12-05', deadline: '2026-11-30' }),
      tag('RW-5', { waits_until: '2026-11-27T09:00:00', waits_for: 'glue' }),
      tag('RW-10'),
    ]
    expect(groupsOf(tags, 'hand', NOW).map((group) => [group.name, ...group.tags.map((one) => one.ticket)])).toEqual([
      ['Ready', 'RW-4', 'RW-3', 'RW-5', 'RW-10'],
      ['Waiting', 'RW-1'],
      ['With owner', 'RW-2'],
    ])
    expect(groupsOf(tags, 'ticket', NOW)[0]?.tags.map((one) => one.ticket).at(-1)).toBe('RW-10')
  })
})
