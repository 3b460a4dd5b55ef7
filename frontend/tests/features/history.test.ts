/** Where visits and values stand on a chart. */
import { describe, expect, it } from 'vitest'
import type { HistoryVisit } from '@/api'
import { timeScale, valueScale } from '@/features/history/scale'

const at = (id: string, day: string) => ({ id, opened_at: day }) as HistoryVisit

describe('time', () => {
  it('is in proportion, from the first visit to the last', () => {
    const scale = timeScale([at('c', '2026-01-01'), at('b', '2025-01-01'), at('a', '2024-01-02')])
    expect([scale.x('a'), scale.x('c')]).toEqual([0, 1])
    expect(scale.x('b')).toBeCloseTo(0.5, 2)
  })
  it('keeps two visits of one week apart, and their order', () => {
    const scale = timeScale([at('c', '2026-01-03'), at('b', '2026-01-01'), at('a', '2016-01-01')])
    expect(scale.x('c') - scale.x('b')).toBeGreaterThan(0.03)
    expect(scale.x('c')).toBe(1)
    expect(scale.visits.map((one) => one.id)).toEqual(['a', 'b', 'c'])
  })
  it('holds forty visits of one day', () => {
    const scale = timeScale(Array.from({ length: 40 }, (_, i) => at(String(i), '2026-01-01')))
    const places = scale.visits.map((one) => one.x)
    expect(new Set(places).size).toBe(40)
    expect(Math.max(...places)).toBeLessThanOrEqual(1)
  })
  it('puts a single visit into the middle', () => {
    expect(timeScale([at('a', '2026-01-01')]).x('a')).toBe(0.5)
  })
})

it('leaves room over and under the values', () => {
  const scale = valueScale([76, 80])
  expect(scale.low).toBeLessThan(76)
  expect(scale.high).toBeGreaterThan(80)
  expect(valueScale([5, 5]).high).toBeGreaterThan(valueScale([5, 5]).low)
})
