/** The same act pressed twice is one; there and back again are two. */
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { makeOnePress } from '@/shared/onePress'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

it('takes a double press for one, also just after the first was answered, and a later one for another', async () => {
  const onePress = makeOnePress()
  const act = vi.fn(() => Promise.resolve('done'))
  await onePress('half back', act)
  vi.advanceTimersByTime(200)
  expect(await onePress('half back', act)).toBe('done')
  expect(act).toHaveBeenCalledTimes(1)
  vi.advanceTimersByTime(400)
  await onePress('half back', act)
  expect(act).toHaveBeenCalledTimes(2)
})

it('drops nothing of one way, back, and the same way again', async () => {
  const onePress = makeOnePress()
  const done: string[] = []
  for (const way of ['on', 'off', 'on']) await onePress(way, () => Promise.resolve(done.push(way)))
  expect(done).toEqual(['on', 'off', 'on'])
})

it('lets what was refused be tried again at once', async () => {
  const onePress = makeOnePress()
  const act = vi.fn(() => Promise.reject(new Error('no')))
  await expect(onePress('save', act)).rejects.toThrow('no')
  await expect(onePress('save', act)).rejects.toThrow('no')
  const ask = vi.fn(() => Promise.resolve({ ok: false }))
  await onePress('ask', ask, ({ ok }) => !ok)
  await onePress('ask', ask, ({ ok }) => !ok)
  expect([act.mock.calls.length, ask.mock.calls.length]).toEqual([2, 2])
})
