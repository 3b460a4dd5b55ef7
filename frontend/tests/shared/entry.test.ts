/** A draft belongs to one instrument and one entry, ends with its success, and is empty for something new. */
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { Refused } from '@/api/refused'
import { changedSince, forgetEntries, useFormEntry, type UseFormEntryReturn } from '@/shared/entry'

interface Draft {
  words: string
  rated: Record<string, number>
}
const empty = (): Draft => ({ words: '', rated: {} })
const ticket = ref('RW-101')
const form = (more: { isOpenAgainAtOnce?: boolean } = {}): UseFormEntryReturn<Draft> => {
  const made = effectScope(true).run(() => useFormEntry({ kind: 'heard', of: () => ticket.value, empty, ...more }))
  if (!made) throw new Error('no scope')
  return made
}
beforeEach(() => {
  vi.stubGlobal('window', new EventTarget())
  forgetEntries()
  ticket.value = 'RW-101'
})

/** An act whose answer somebody else gives. */
function underway(): { run: () => Promise<void>; answer: () => void; refuse: () => void } {
  let [answer, refuse] = [() => {}, () => {}]
  const done = new Promise<void>((resolve, reject) => {
    answer = resolve
    refuse = () => reject(new Refused('Say more.', { words: 'Say more.' }))
  })
  return { run: () => done, answer: () => answer(), refuse: () => refuse() }
}

describe('an entry of a form', () => {
  it('is empty and has another id after its success', async () => {
    const { draft, id, send } = form()
    const first = id.value
    draft.value.words = 'bright'
    draft.value.rated = { open: 3 }
    expect(await send(() => Promise.resolve())).toBe(true)
    expect(draft.value).toEqual(empty())
    expect(id.value).not.toBe(first)
  })

  it('stays at its instrument, and ends there though another page is open by then', async () => {
    const one = form()
    one.draft.value.words = 'bright'
    const act = underway()
    const sent = one.send(act.run)
    ticket.value = 'RW-102'
    await nextTick()
    expect(one.draft.value.words).toBe('')
    one.draft.value.words = 'of the other'
    act.answer()
    await sent
    expect(one.draft.value.words).toBe('of the other')
    ticket.value = 'RW-101'
    await nextTick()
    expect(form().draft.value).toEqual(empty())
  })

  it('keeps what was refused, with its id, and says so at its instrument', async () => {
    const { draft, id, faults, send } = form()
    draft.value.words = 'x'
    const first = id.value
    const act = underway()
    const sent = send(act.run)
    act.refuse()
    expect(await sent).toBe(false)
    expect([draft.value.words, id.value, faults.value]).toEqual(['x', first, { words: 'Say more.' }])
  })

  it('goes out once, however often it is pressed', async () => {
    const { draft, send } = form()
    draft.value.words = 'x'
    const act = underway()
    const run = vi.fn(act.run)
    const both = [send(run), send(run)]
    act.answer()
    expect(await Promise.all(both)).toEqual([true, false])
    expect(run).toHaveBeenCalledTimes(1)
  })

  it('keeps what was typed meanwhile, and only that', async () => {
    const { draft, send } = form()
    draft.value.words = 'bright'
    draft.value.rated = { open: 3 }
    const act = underway()
    const sent = send(act.run)
    draft.value.rated = { open: 3, loud: 4 }
    act.answer()
    await sent
    expect(draft.value).toEqual({ words: '', rated: { loud: 4 } })
  })

  it('shuts its form once it is there, and not under a hand that types on or at another instrument', async () => {
    const shut = vi.fn()
    const { draft, send } = form()
    draft.value.words = 'bright'
    const first = underway()
    const sent = send(first.run, shut)
    draft.value.words = 'brighter'
    first.answer()
    await sent
    expect(shut).not.toHaveBeenCalled()
    const second = underway()
    const elsewhere = send(second.run, shut)
    ticket.value = 'RW-2'
    second.answer()
    await elsewhere
    expect(shut).not.toHaveBeenCalled()
    ticket.value = 'RW-1'
    draft.value.words = 'open'
    await send(() => Promise.resolve(), shut)
    expect(shut).toHaveBeenCalledOnce()
  })

  it('is empty as soon as it is sent where the next is typed beside it, and comes back where it was refused', async () => {
    const { draft, send } = form({ isOpenAgainAtOnce: true })
    draft.value.words = 'bright'
    const first = underway()
    const sent = send(first.run)
    expect(draft.value).toEqual(empty())
    draft.value.words = 'bright'
    first.answer()
    await sent
    expect(draft.value.words).toBe('bright')
    const second = underway()
    draft.value.rated = { open: 3 }
    const refused = send(second.run)
    draft.value.words = 'typed on'
    second.refuse()
    expect(await refused).toBe(false)
    expect(draft.value).toEqual({ words: 'typed on', rated: { open: 3 } })
  })

  it('sends what was typed and pressed meanwhile behind it, once, and at its instrument alone', async () => {
    const { draft, send } = form({ isOpenAgainAtOnce: true })
    const said: string[] = []
    const first = underway()
    const keep = (act: Promise<void> = Promise.resolve()) => send(async (_, { words }) => {
      said.push(words)
      await act
    })
    draft.value.words = 'bright'
    const one = keep(first.run())
    expect(await keep()).toBe(false)
    draft.value.words = 'dark'
    const [two, twice] = [keep(), keep()]
    expect(said).toEqual(['bright'])
    first.answer()
    expect([await one, await two, await twice]).toEqual([true, true, false])
    expect([said, draft.value]).toEqual([['bright', 'dark'], empty()])

    const other = underway()
    draft.value.words = 'loud'
    const three = keep(other.run())
    draft.value.words = 'soft'
    const four = keep()
    ticket.value = 'RW-102'
    other.answer()
    expect([await three, await four]).toEqual([true, false])
    ticket.value = 'RW-101'
    await nextTick()
    expect([said.at(-1), draft.value.words]).toEqual(['loud', 'soft'])
  })

  it('opens as things stand now where nothing was typed', () => {
    let owner = 'Pia'
    const made = effectScope(true).run(() => useFormEntry({ kind: 'approval', of: () => ticket.value, empty: () => ({ who: owner }) }))
    expect(made?.draft.value.who).toBe('Pia')
    owner = 'Jonah'
    made?.begin()
    expect(made?.draft.value.who).toBe('Jonah')
    if (made) made.draft.value.who = 'his brother'
    owner = 'Maren'
    made?.begin()
    expect(made?.draft.value.who).toBe('his brother')
  })
})

it('tells what changed of nested values', () => {
  expect(changedSince({ a: 1, b: { c: 2, d: 3 } }, { a: 1, b: { c: 2, d: 4 } }, { a: 0, b: {} as Record<string, number> })).toEqual({ a: 0, b: { d: 4 } })
})
