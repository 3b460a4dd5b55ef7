import { describe, expect, it } from 'vitest'
import { sourceKey, sourceOf } from '@/features/recipes/sources'

describe('where a target comes from', () => {
  it('goes to a key and back', () => {
    for (const source of [
      { kind: 'as_found', of: '' },
      { kind: 'visit', of: 'a-b-c' },
      { kind: 'instrument', of: 'RW:1' },
    ]) {
      expect(sourceOf(sourceKey(source.kind, source.of))).toEqual(source)
    }
  })

  it('refuses what is no source', () => {
    expect(() => sourceOf('recipe')).toThrow('no source')
  })
})
