/** Lengths as an inch rule has them. */
import { describe, expect, it } from 'vitest'
import { inches } from '@/shared/inches'
import { pageOfQuestion, pagesOf } from '@/shared/pages'

describe('inches and 64ths', () => {
  it.each([
    [25.4, '1 in'],
    [5.159375, '13/64 in'],
    [5.2, '13/64 in'],
    [19.05, '3/4 in'],
    [328, '12 29/32 in'],
    [0, '0 in'],
    [-6.35, '−1/4 in'],
    [0.1, '0 in'],
  ])('%f mm is about %s', (mm, said) => {
    expect(inches(mm)).toBe(said)
  })
})

describe('pages', () => {
  it('have height wheels for a bass alone', () => {
    expect(pagesOf('bass')).toContain('wheels')
    expect(pagesOf('violin')).not.toContain('wheels')
  })

  it('are where a question is decided that one can try out', () => {
    expect(pageOfQuestion('projection')).toBe('neck')
    expect(pageOfQuestion('seam')).toBeUndefined()
  })
})
