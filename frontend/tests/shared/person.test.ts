import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, test } from 'vitest'
import { useAtBench } from '@/shared/person'

beforeEach(() => {
  setActivePinia(createPinia())
  localStorage.clear()
})

test('the tool in the hand reads what it suits, and the usual one the rest', () => {
  const bench = useAtBench()
  bench.tool = 'rule'
  expect(bench.toolFor('end_height', ['caliper', 'wedge', 'rule'])).toBe('rule')
  expect(bench.toolFor('board_radius', ['radius_gauge'])).toBe('radius_gauge')
})

test('what stands inside is read with the card gauge, unless somebody says otherwise for it', () => {
  const bench = useAtBench()
  bench.tool = 'caliper'
  const tools = ['card_gauge', 'caliper']
  expect(bench.toolFor('post_setback', tools)).toBe('card_gauge')
  bench.chooseTool('post_setback', 'caliper')
  expect(bench.toolFor('post_setback', tools)).toBe('caliper')
  expect(bench.toolFor('post_inset', tools)).toBe('card_gauge')
})
