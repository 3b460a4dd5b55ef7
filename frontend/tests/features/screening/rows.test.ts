import { describe, expect, it } from 'vitest'
import type { ScreenCell, ScreenRow, Tag } from '@/api'
import { EVERYTHING, fleetsOf, nextFitting, tally, ticketsOf } from '@/features/screening/rows'

const tag = (ticket: string, owner: string, is_fleet: boolean) => ({ ticket, owner, is_fleet }) as Tag
const TAGS = [tag('RW-1', 'Band', true), tag('RW-2', 'Band', false), tag('RW-3', 'School', true), tag('RW-4', 'School', true), tag('RW-5', '', true)]
const row = (needs: ScreenRow['needs']) => ({ needs }) as ScreenRow
const cells = (...fits: boolean[]) => fits.map((one) => ({ fits: one }) as ScreenCell)

describe('screening', () => {
  it('offers the fleets, the largest first; an owner is a fleet only where the door said so', () => {
    expect(fleetsOf(TAGS)).toEqual([{ owner: 'School', count: 2 }, { owner: 'Band', count: 1 }])
    expect(ticketsOf(TAGS, 'Band')).toEqual(['RW-1'])
    expect(ticketsOf(TAGS, EVERYTHING)).toHaveLength(5)
  })
  it('tells how many need what, and leaves out what nobody needs', () => {
    expect(tally([row('luthier'), row('open'), row('open')])).toBe('1 of 3 needs a luthier, 2 still open')
    expect(tally([row('luthier'), row('luthier'), row('small'), row('nothing')])).toBe('2 of 4 need a luthier, 1 small work, 1 nothing')
    expect(tally([row('nothing')])).toBe('0 of 1 need a luthier, 1 nothing')
  })
  it('goes past what an instrument does not have, to its end at last', () => {
    expect(nextFitting(cells(true, false, true), 0, 1)).toBe(2)
    expect(nextFitting(cells(true, false, false), 0, 1)).toBe(3)
    expect(nextFitting(cells(true, false, true), 2, -1)).toBe(0)
  })
})
