import { expect, test } from 'vitest'
import { toolAmong } from '@/shared/tools'

test('the tool in the hand reads what it suits, and the usual one the rest', () => {
  expect(toolAmong(['caliper', 'wedge', 'rule'], 'rule')).toBe('rule')
  expect(toolAmong(['caliper', 'wedge', 'rule'], 'rule', 'wedge')).toBe('wedge')
  expect(toolAmong(['radius_gauge'], 'caliper')).toBe('radius_gauge')
  expect(toolAmong([], 'caliper')).toBe('caliper')
})

test('what stands inside is read with the card gauge, unless somebody says otherwise for it', () => {
  expect(toolAmong(['card_gauge', 'caliper'], 'caliper')).toBe('card_gauge')
  expect(toolAmong(['card_gauge', 'caliper'], 'caliper', 'caliper')).toBe('caliper')
})
