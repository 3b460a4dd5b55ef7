/** The order asked is the order of the cursor, and of the main button. */
import { describe, expect, it } from 'vitest'
import type { BenchSheet } from '@/api'
import { nextAsked } from '@/features/bench/asked'
import type { Waiting } from '@/features/bench/waiting'

const sheet = (...read: [position: number, times: number][]): BenchSheet =>
  ({
    cells: [0, 1, 2, 3].map((position) => ({ measure: 'end_height', position })),
    instruction: { read: read.map(([position, times]) => ({ measure: 'end_height', position, times })) },
  }) as unknown as BenchSheet
const waits = (...positions: number[]): Waiting[] => positions.map((position) => ({ body: { measure: 'end_height', position } }) as unknown as Waiting)

describe('what is read next', () => {
  it('stays at G until both of its readings are on their way, then goes to E', () => {
    const twice = sheet([0, 2], [3, 2])
    expect(nextAsked(twice, [], 'end_height:0')).toBe('end_height:0')
    expect(nextAsked(twice, waits(0), 'end_height:0')).toBe('end_height:0')
    expect(nextAsked(twice, waits(0, 0), 'end_height:0')).toBe('end_height:3')
    expect(nextAsked(twice, waits(0, 0, 3, 3), 'end_height:3')).toBeUndefined()
  })

  it('goes by the order asked, not by the order of the card', () => {
    expect(nextAsked(sheet([3, 1], [0, 1], [1, 1]), waits(3), 'end_height:3')).toBe('end_height:0')
  })

  it('stays where somebody is who is asked for it, and comes back to the first from elsewhere', () => {
    expect(nextAsked(sheet([0, 1], [1, 1]), [], 'end_height:1')).toBe('end_height:1')
    expect(nextAsked(sheet([0, 1], [1, 1]), [], 'end_height:2')).toBe('end_height:0')
  })
})
