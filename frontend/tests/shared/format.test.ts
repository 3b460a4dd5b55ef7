/** Numbers and times as they stand on the sheet. */
import { describe, expect, it } from 'vitest'
import { ago, mm, plain } from '@/shared/format'

describe('millimetres', () => {
  it('have a true minus and no minus zero', () => {
    expect(mm(-0.46, 1)).toBe('−0.5')
    expect(mm(-0.04, 1)).toBe('0.0')
    expect(mm(5)).toBe('5.00')
  })

  it('are plain where zeros say nothing', () => {
    expect(plain(327)).toBe('327')
    expect(plain(5.5)).toBe('5.5')
    expect(plain(27.349)).toBe('27.35')
  })
})

describe('how long ago', () => {
  const now = Date.parse('2026-11-23T12:00:00Z')
  it.each([
    ['2026-11-23T11:59:50Z', 'just now'],
    ['2026-11-23T11:55:00Z', '5 min ago'],
    ['2026-11-23T09:00:00Z', '3 h ago'],
    ['2026-11-22T09:00:00Z', 'yesterday'],
    ['2026-11-13T12:00:00Z', '10 days ago'],
    ['2026-11-23T12:00:30Z', 'just now'],
  ])('%s is %s', (when, said) => {
    expect(ago(when, now)).toBe(said)
  })
})
