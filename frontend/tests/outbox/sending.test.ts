import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { Refused } from '@/api/refused'
import { openKeep, type Keep } from '@/outbox/keep'
import { nextOrder, type Row } from '@/outbox/rows'
import { makeSender, type Outcome } from '@/outbox/sending'

const away = () => new Refused('The server does not answer.', {}, true)
const no = (status: number) => new Refused('No.', { typed: 'No.' }, status >= 500, status)

function row(words: string, more: Partial<Row> = {}): Row {
  return {
    ...{ method: 'POST', path: '/x', params: {}, body: { words }, words, work: '', order: nextOrder(), id: words },
    ...{ person: 'p', by: 'Ilse', ticket: 'RW-101', visit: '', at: '', media: '', size: 0 },
    ...{ state: 'waiting', says: '', fields: {}, failed: 0, again: 0 },
    ...more,
  } as Row
}

let names = 0
let keep: Keep
let sent: string[]
let told: [string, Outcome['kind']][]
let answers: Record<string, (Refused | string)[]>
let awaited: Set<string>
let now: number

function sender() {
  return makeSender({
    keep,
    send: async (one, blob) => {
      const next = answers[one.words]?.shift()
      if (next instanceof Refused) throw next
      sent.push(blob ? `${one.words}: ${await blob.text()}` : one.words)
      return `answer to ${one.words}`
    },
    told: (one, outcome) => told.push([one.words, outcome.kind]),
    isAwaited: (one) => awaited.has(one.id),
    now: () => now,
  })
}
const words = async () => (await keep.all()).map((one) => one.words)

beforeEach(async () => {
  keep = await openKeep(`test-${names++}`)
  ;[sent, told, answers, awaited, now] = [[], [], {}, new Set(), 1_000_000]
})

describe('sending', () => {
  it('goes in order, and keeps nothing of what the server has', async () => {
    for (const one of ['a', 'b', 'c']) await keep.add(row(one))
    await sender().pump()
    expect(sent).toEqual(['a', 'b', 'c'])
    expect(await words()).toEqual([])
  })

  it('stops at a server that is away, waits longer each time, and goes on where it was', async () => {
    for (const one of ['a', 'b']) await keep.add(row(one))
    answers = { a: [away(), away()] }
    const one = sender()
    await one.pump()
    const first = one.delay() ?? 0
    await one.pump()
    expect(one.delay()).toBeGreaterThan(first)
    expect(sent).toEqual([])
    await one.pump()
    expect(sent).toEqual(['a', 'b'])
    expect(one.delay()).toBeNull()
  })

  it('does not ask again by itself where somebody has to sign in', async () => {
    await keep.add(row('a'))
    answers = { a: [no(401)] }
    const one = sender()
    await one.pump()
    expect(one.delay()).toBeNull()
    expect(await words()).toEqual(['a'])
  })

  it('lets the others by where the server fails at one, tries that again, and at last shows it', async () => {
    for (const one of ['a', 'b']) await keep.add(row(one))
    answers = { a: Array.from({ length: 9 }, () => no(500)) }
    const one = sender()
    await one.pump()
    expect(sent).toEqual(['b'])
    expect(told[0]).toEqual(['a', 'failed'])
    await one.pump()
    expect(answers.a).toHaveLength(8)
    for (let i = 0; i < 6; i += 1) {
      now += 3_600_000
      await one.pump()
    }
    expect((await keep.all()).map(({ words, state }) => [words, state])).toEqual([['a', 'refused']])
  })

  it('keeps a refusal with what was typed, and lets the others by', async () => {
    for (const one of ['a', 'b']) await keep.add(row(one))
    answers = { a: [no(422)] }
    await sender().pump()
    expect(sent).toEqual(['b'])
    expect((await keep.all())[0]).toMatchObject({ words: 'a', state: 'refused', says: 'No.', fields: { typed: 'No.' } })
  })

  it('keeps no refusal that a form shows itself', async () => {
    await keep.add(row('a'))
    awaited.add('a')
    answers = { a: [no(422)] }
    await sender().pump()
    expect(await words()).toEqual([])
    expect(told).toEqual([['a', 'refused']])
  })

  it('holds what needs a PIN until somebody gave one', async () => {
    for (const one of ['a', 'b']) await keep.add(row(one))
    answers = { a: [no(403)] }
    const one = sender()
    await one.pump()
    await one.pump()
    expect(sent).toEqual(['b'])
    await one.pump(true)
    expect(sent).toEqual(['b', 'a'])
  })

  it('asks for the sheet only with the last of several readings of one instrument', async () => {
    const asked: boolean[] = []
    for (const one of [row('a'), row('b'), row('c', { ticket: 'RW-102' })]) await keep.add(one)
    const send = (_one: Row, _blob: Blob | undefined, more: boolean) => Promise.resolve(asked.push(more))
    await makeSender({ keep, send, told: () => {}, isAwaited: () => false }).pump()
    expect(asked).toEqual([true, false, false])
  })

  it('sends a photograph with its own bytes', async () => {
    await keep.add(row('a', { media: 'image/jpeg', size: 3 }), new Blob(['jpg']))
    await sender().pump()
    expect(sent).toEqual(['a: jpg'])
    expect(await keep.blob('a')).toBeUndefined()
  })
})

describe('keeping', () => {
  it('finds everything again after a reload, in its order', async () => {
    const name = `test-${names++}`
    const before = await openKeep(name)
    await before.add(row('b', { order: 2 }))
    await before.add(row('a', { order: 1, media: 'image/png', size: 3 }), new Blob(['png']))
    const after = await openKeep(name)
    expect((await after.all()).map((one) => one.words)).toEqual(['a', 'b'])
    expect(await (await after.blob('a'))?.text()).toBe('png')
  })

  it('does not bring back what another tab dropped', async () => {
    const one = row('a')
    await keep.add(one)
    await keep.drop(one)
    await keep.change({ ...one, state: 'held' })
    expect(await words()).toEqual([])
  })

  it('gives every entry a later place than the one before', () => {
    const orders = Array.from({ length: 1000 }, nextOrder)
    expect(orders.every((one, i) => i === 0 || one > (orders[i - 1] ?? 0))).toBe(true)
  })
})

describe('what the browser does not take', () => {
  it('is sent all the same, in its order, and said not to outlast a reload', async () => {
    const put = vi.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    expect(await keep.add(row('a'))).toBe(false)
    put.mockRestore()
    expect(await keep.add(row('b'))).toBe(true)
    await sender().pump()
    expect(sent).toEqual(['a', 'b'])
    expect(await words()).toEqual([])
  })

  it('goes on after the database was closed under it', async () => {
    const name = `closed-${names}`
    const mine = await openKeep(name)
    expect(await mine.add(row('a'))).toBe(true)
    // Another page takes the database away: this one lets go, and makes it again when it is asked.
    await new Promise<void>((resolve, reject) => {
      const asked = indexedDB.deleteDatabase(name)
      asked.onsuccess = () => resolve()
      asked.onerror = () => reject(new Error('not taken away'))
    })
    expect(await mine.add(row('b'))).toBe(true)
    expect((await mine.all()).map((one) => one.words)).toEqual(['b'])
  })

  it('loses none of two rows of two tabs with one order', async () => {
    const [one, other] = [row('a'), row('b')]
    other.order = one.order
    await keep.add(one)
    await keep.add(other)
    expect(other.order).not.toBe(one.order)
    expect(await words()).toEqual(['a', 'b'])
  })

  it('is not sent once another tab has withdrawn it', async () => {
    const one = row('a')
    await keep.add(one)
    const { pump } = makeSender({
      keep,
      send: (two) => Promise.resolve(sent.push(two.words)),
      told: () => {},
      isAwaited: () => false,
      whileHeld: async (two, act) => {
        await keep.drop(two)
        return act()
      },
    })
    await pump()
    expect(sent).toEqual([])
  })
})
