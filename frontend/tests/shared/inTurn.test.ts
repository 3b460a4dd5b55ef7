import { describe, expect, it, vi } from 'vitest'
import { useInTurn } from '@/shared/inTurn'

/** Acts that end when they are told to. */
function acts() {
  const begun: string[] = []
  const ends: Record<string, { done: () => void; fail: () => void }> = {}
  const act = (name: string) => () => {
    begun.push(name)
    return new Promise<string>((resolve, reject) => (ends[name] = { done: () => resolve(name), fail: () => reject(new Error(name)) }))
  }
  return { act, begun, ends }
}
const settled = () => new Promise((resolve) => setTimeout(resolve))

describe('acts in their turn', () => {
  it('lets one wait until the one before it is done', async () => {
    const { inTurn, isSending } = useInTurn()
    const { act, begun, ends } = acts()
    const first = inTurn('begin', act('begin'))
    const second = inTurn('add', act('add'))
    await settled()
    expect(begun).toEqual(['begin'])
    ends.begin?.done()
    expect(await first).toBe('begin')
    await settled()
    expect(begun).toEqual(['begin', 'add'])
    expect(isSending.value).toBe(true)
    ends.add?.done()
    expect(await second).toBe('add')
    await settled()
    expect(isSending.value).toBe(false)
  })
  it('goes on after one that failed', async () => {
    const { inTurn } = useInTurn()
    const { act, begun, ends } = acts()
    const first = inTurn('begin', act('begin'))
    const second = inTurn('add', act('add'))
    await settled()
    ends.begin?.fail()
    await expect(first).rejects.toThrow('begin')
    await settled()
    expect(begun).toEqual(['begin', 'add'])
    ends.add?.done()
    await second
  })
  it('takes the same pressed twice for one, and for another some time after it is done', async () => {
    const { inTurn } = useInTurn()
    const { act, begun, ends } = acts()
    const first = inTurn('begin', act('begin'))
    expect(inTurn('begin', act('again'))).toBe(first)
    await settled()
    ends.begin?.done()
    await first
    vi.setSystemTime(Date.now() + 1000)
    void inTurn('begin', act('again'))
    await settled()
    vi.useRealTimers()
    expect(begun).toEqual(['begin', 'again'])
  })
})
