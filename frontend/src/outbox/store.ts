/** The outbox: everything that a person enters goes through here, is kept until the server has it, and shows meanwhile. */
import { useEventListener, useThrottleFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { answerOf, api, onBack } from '@/api'
import { Refused } from '@/api/refused'
import { freshId } from '@/shared/id'
import { makeOnePress, saidBy } from '@/shared/onePress'
import { useAtBench } from '@/shared/person'
import { openKeep, type Keep } from './keep'
import { oldReadings } from './old'
import { nextOrder, type Act, type Row } from './rows'
import { makeSender, type Outcome, type Sender } from './sending'

const SHARED = 'fidicula-outbox'
const MANY = 30
const LEAVE_EVERY_MS = 150
const PATIENCE_MS = 10_000
/** A large file is given longer: a slow line carries so much. */
const BYTES_PER_MS = 50

/** What came of an act that somebody waits for. */
export type Done = { sent: true; answer: unknown } | { sent: false }
type Told = { kind: 'added' | 'changed' | 'gone'; row: Row } | { kind: 'told'; row: Row; outcome: Outcome; status: number }
type OnSent = (row: Row, answer: unknown, isMine: boolean) => void

interface Waiter {
  resolve: (done: Done) => void
  reject: (error: Refused) => void
}

/** What an act is, whatever was known as it was pressed: pressed twice it is the same. */
function whatOf({ method, path, params, body, blob }: Act): string {
  const query = { ...params.query }
  delete query.id
  return JSON.stringify([method, path, params.path, query, saidBy(body), blob?.size])
}

export const useOutbox = defineStore('outbox', () => {
  const atBench = useAtBench()
  /** In their order. */
  const rows = shallowRef<Row[]>([])
  /** Whether what waits here outlasts a reload. */
  const lasts = ref(true)
  const waiting = computed(() => rows.value.filter((row) => row.state === 'waiting'))
  /** Entered, and not yet where a reload finds it. */
  const unkept = ref(new Set<number>())
  const kept = computed(() => waiting.value.filter((row) => !unkept.value.has(row.order)))
  const held = computed(() => rows.value.filter((row) => row.state === 'held'))
  const refused = computed(() => rows.value.filter((row) => row.state === 'refused'))

  const others = new BroadcastChannel(SHARED)
  /** Dropped here or in another tab. */
  const gone = new Set<number>()
  const onePress = makeOnePress()
  const waiters = new Map<string, Waiter>()
  const onSent = new Set<OnSent>()
  const onRefused = new Set<(row: Row) => boolean>()
  /** On its way at this moment: it cannot be withdrawn any more. */
  let flying = 0
  /** Whether something could not be sent, and is tried again. */
  const isStuck = ref(false)
  let timer: ReturnType<typeof setTimeout> | undefined

  const opened: Promise<{ keep: Keep; sender: Sender }> = openKeep().then(async (keep) => {
    for (const row of oldReadings()) await keep.add(row)
    const there = await keep.all()
    const known = new Set(there.map((row) => row.order))
    rows.value = [...there, ...rows.value.filter((row) => !known.has(row.order))]
    return { keep, sender: makeSender({ keep, send, told, isAwaited: (row) => waiters.has(row.id), isDropped: (row) => gone.has(row.order), whileHeld }) }
  })

  function show(row: Row, isThere: boolean): void {
    const without = rows.value.filter((one) => one.order !== row.order)
    rows.value = isThere ? [...without, row].sort((a, b) => a.order - b.order) : without
  }
  /** Of many, what was sent leaves the page a few times a second, and not with each. */
  const leaving = new Set<number>()
  const leave = useThrottleFn(() => {
    rows.value = rows.value.filter((row) => !leaving.has(row.order))
    leaving.clear()
  }, LEAVE_EVERY_MS, true)
  function sent(row: Row): void {
    if (rows.value.length <= MANY) show(row, false)
    else {
      leaving.add(row.order)
      void leave()
    }
  }
  function share(what: Told): void {
    others.postMessage(what)
  }

  others.onmessage = ({ data }: MessageEvent<Told>) => {
    if (data.kind === 'gone') gone.add(data.row.order)
    if (data.kind !== 'told') show(data.row, data.kind !== 'gone')
    else if (data.outcome.kind === 'refused') become(data.row, { kind: 'refused', error: new Refused(data.row.says, data.row.fields, false, data.status) }, false)
    else become(data.row, data.outcome, false)
  }

  /** What became of a row, here or in the tab that sent it. */
  function become(row: Row, outcome: Outcome, isMine: boolean): void {
    const waiter = waiters.get(row.id)
    if (outcome.kind === 'waits') {
      show(row, true)
      // Whoever waited for it goes on; it is kept.
      for (const [id, one] of waiters) {
        waiters.delete(id)
        one.resolve({ sent: false })
      }
      return
    }
    if (outcome.kind === 'held' || outcome.kind === 'failed') {
      show(row, true)
    } else if (outcome.kind === 'sent') {
      sent(row)
      for (const listen of onSent) listen(row, outcome.answer, isMine)
    } else {
      const isTaken = waiter !== undefined || [...onRefused].some((take) => take(row))
      show(row, !isTaken)
      if (isTaken) void opened.then(({ keep }) => keep.drop(row))
    }
    waiters.delete(row.id)
    if (outcome.kind === 'sent') unkept.value.delete(row.order)
    if (outcome.kind === 'sent') waiter?.resolve({ sent: true, answer: outcome.answer })
    else if (outcome.kind === 'refused') waiter?.reject(outcome.error)
    else waiter?.resolve({ sent: false })
  }

  function told(row: Row, outcome: Outcome): void {
    become(row, outcome, true)
    const plain = outcome.kind === 'refused' ? ({ kind: 'refused' } as Outcome) : outcome
    share({ kind: 'told', row, outcome: plain, status: outcome.kind === 'refused' ? outcome.error.status : 0 })
  }

  async function send(row: Row, blob: Blob | undefined, more: boolean): Promise<unknown> {
    flying = row.order
    try {
      const headers: Record<string, string> = { 'X-Fidicula-Person': row.person, 'X-Fidicula-At': row.at }
      if (more) headers['Prefer'] = 'return=minimal'
      if (row.visit) headers['X-Fidicula-Visit'] = row.visit
      if (row.media) headers['Content-Type'] = row.media
      const file = blob && { body: blob, bodySerializer: (body: unknown) => body as BodyInit }
      const asked = { params: row.params, ...(row.body === undefined ? {} : { body: row.body }), ...file, headers, signal: AbortSignal.timeout(PATIENCE_MS + row.size / BYTES_PER_MS) }
      return await answerOf(api.request(row.method.toLowerCase() as 'post', row.path as never, asked as never))
    } finally {
      flying = 0
    }
  }

  /** A row that is on its way, in this tab or another, cannot be withdrawn any more; one that is being withdrawn is not sent. */
  const holdOf = (row: Row) => `${SHARED}/${row.order}`
  function whileHeld<Answer>(row: Row, act: () => Promise<Answer>): Promise<Answer> {
    return 'locks' in navigator ? (navigator.locks.request(holdOf(row), act) as Promise<Answer>) : act()
  }
  /** False where it is held. */
  async function whileNotHeld(row: Row, act: () => Promise<void>): Promise<boolean> {
    if (!('locks' in navigator)) {
      if (row.order === flying) return false
      await act()
      return true
    }
    return navigator.locks.request(holdOf(row), { ifAvailable: true }, async (lock) => {
      if (lock) await act()
      return lock !== null
    })
  }

  /** Send what waits, in this tab or in the one that is at it already. */
  async function pump(again = false): Promise<void> {
    clearTimeout(timer)
    const { sender } = await opened
    const run = async () => {
      await sender.pump(again)
      const delay = sender.delay()
      isStuck.value = delay !== null
      if (delay !== null) timer = setTimeout(() => void pump(), delay)
    }
    if ('locks' in navigator) await navigator.locks.request(SHARED, run)
    else await (alone = alone.then(run))
  }
  let alone: Promise<void> = Promise.resolve()

  /** Keep an act and send it. What it belongs to is what it says now, whatever is looked at when it is sent. */
  function enter(act: Act, { visit = '', id = freshId() } = {}): Row {
    const { blob, ...rest } = act
    const row: Row = {
      // As it is now: a form goes on being changed.
      ...(JSON.parse(JSON.stringify(rest)) as Omit<Act, 'blob'>),
      order: nextOrder(),
      id,
      person: atBench.personId,
      by: atBench.person,
      ticket: String(act.params.path?.ticket ?? ''),
      visit,
      at: new Date().toISOString(),
      media: blob ? blob.type || 'application/octet-stream' : '',
      size: blob?.size ?? 0,
      state: 'waiting',
      says: '',
      fields: {},
      failed: 0,
      again: 0,
    }
    const { order } = row
    unkept.value.add(order)
    show(row, true)
    void opened.then(async ({ keep }) => {
      const isKept = await keep.add(row, blob)
      lasts.value = isKept
      // What only this page has is warned of until it is sent.
      unkept.value.delete(order)
      if (!isKept) unkept.value.add(row.order)
      if (row.order !== order) rows.value = [...rows.value].sort((a, b) => a.order - b.order)
      if (isKept) share({ kind: 'added', row })
      await pump()
    })
    return row
  }

  /** The same for a form, which shows a refusal itself. Throws Refused; says whether the server has it by now. */
  function submit(act: Act, more: { visit?: string } = {}): Promise<Done> {
    return onePress(whatOf(act), () => {
      const id = freshId()
      return new Promise((resolve, reject) => {
        waiters.set(id, { resolve, reject })
        enter(act, { ...more, id })
      })
    })
  }

  /** Take an entry out before it is sent; false where it is on its way already. */
  async function drop(row: Row): Promise<boolean> {
    const { keep } = await opened
    const isDropped = await whileNotHeld(row, async () => {
      gone.add(row.order)
      await keep.drop(row)
    })
    if (!isDropped) return false
    unkept.value.delete(row.order)
    show(row, false)
    share({ kind: 'gone', row })
    // Whoever waited for it goes on: nothing will be said of it.
    waiters.get(row.id)?.resolve({ sent: false })
    waiters.delete(row.id)
    return true
  }
  /** Send once more what was refused, with what was put right in it. */
  async function again(row: Row, body: unknown = row.body): Promise<void> {
    const changed: Row = { ...row, body, state: 'waiting', says: '', fields: {}, failed: 0, again: 0 }
    const { keep } = await opened
    await keep.change(changed)
    show(changed, true)
    share({ kind: 'changed', row: changed })
    await pump()
  }
  /** The photograph or recording of a row, to be looked at or kept elsewhere. */
  const blobOf = (row: Row) => opened.then(({ keep }) => keep.blob(row.id))

  // What waited for a server, a sign-in or a PIN goes on its way once that is there.
  watch(() => atBench.signedIn, (now) => {
    if (now) void pump(true)
  }, { immediate: true })
  onBack(() => void pump())
  useEventListener(window, 'online', () => void pump())
  useEventListener(document, 'visibilitychange', () => {
    if (!document.hidden && rows.value.length) void pump()
  })

  useEventListener(window, 'beforeunload', (event) => {
    if (unkept.value.size) event.preventDefault()
  })

  return { rows, waiting, kept, held, refused, lasts, isStuck, onSent, onRefused, enter, submit, pump, drop, again, blobOf }
})
