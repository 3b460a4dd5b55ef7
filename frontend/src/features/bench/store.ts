/** One instrument at the bench: its sheet, and readings that wait until the server has them. */
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { answerOf, api, reach, Refused, type BenchSheet, type CardPlace, type Cell, type FollowBody, type SheetAnswer, type StringsBody, type Why } from '@/api'
import { freshId } from '@/shared/id'
import { keep } from '@/shared/kept'
import { useAtBench } from '@/shared/person'
import { useStored } from '@/shared/stored'
import { keyOf } from './places'
import * as requests from './requests'
import { takeBack } from './takeBack'
import { without, type Manner, type Waiting } from './waiting'
import { whole } from './whole'

const RETRY_AFTER_MS = 2500

export const useBench = defineStore('bench', () => {
  const atBench = useAtBench()
  const ticket = ref('')
  const sheet = ref<BenchSheet | null>(null)
  const failure = ref('')
  /** What somebody else wrote meanwhile at the same place; stays until the next entry here. */
  const notice = ref('')
  const isAway = ref(false)
  /** What a server that answers waits for itself: its database, room on its disk. */
  const awayBecause = ref('')
  /** When the card was written that is being entered; empty while readings are of now. */
  const paperAt = ref('')
  const waiting = useStored<Waiting[]>('waiting', [])
  /** Typed and not yet taken, by ticket and place: nothing typed is lost by leaving. */
  const drafts = useStored<Record<string, string>>('drafts', {})
  const refusals = useStored<Record<string, string>>('refusals', {})
  /** Waiting for a PIN of whoever took them, and why. */
  const held = new Set<string>()
  const heldBack = ref('')
  let flushing: Promise<void> | null = null
  let working: Promise<unknown> | null = null
  let asked = 0
  let shown = 0
  /** Which answer of each instrument this browser keeps. */
  const kept = new Map<string, number>()

  const waitingHere = computed(() => waiting.value.filter((item) => item.ticket === ticket.value))

  function placeOf(cell: Pick<Cell, 'measure' | 'position'>, of = ticket.value): string {
    return `${of}/${keyOf(cell)}`
  }

  /** Ask for a sheet, and show it unless a newer answer, or another instrument, came between. */
  async function ask(of: string, request: () => Promise<SheetAnswer>): Promise<void> {
    const mine = ++asked
    const answer = await request()
    const wasKept = reach.isKept
    const card = await cardOf(of, answer.instrument)
    isAway.value = wasKept
    // An answer that was asked for before another one that is here already may be older: it is not kept over that.
    if (!wasKept && mine > (kept.get(of) ?? 0)) {
      kept.set(of, mine)
      keep(`/api/instruments/${encodeURIComponent(of)}/sheet`, answer)
    }
    if (of === ticket.value && mine > shown && !(wasKept && sheet.value)) {
      shown = mine
      sheet.value = whole(answer, card)
      failure.value = ''
      if (answer.notice) notice.value = answer.notice
    }
  }

  /** Keep what is typed at a place; nothing typed there any more forgets its refusal too. */
  function setDraft(place: string, text: string): void {
    drafts.value = text === '' ? without(drafts.value, place) : { ...drafts.value, [place]: text }
    refusals.value = without(refusals.value, place)
  }

  async function open(name: string): Promise<void> {
    if (ticket.value !== name) {
      ticket.value = name
      sheet.value = null
      whys.value = {}
      failure.value = ''
      notice.value = ''
    }
    await refresh()
    void flush()
  }

  /** The places of each kind of instrument, which never change: asked for once. */
  const cards = new Map<string, CardPlace[]>()
  async function cardOf(of: string, { family, string_names }: SheetAnswer['instrument']): Promise<CardPlace[]> {
    const kind = `${family} ${string_names.join(' ')}`
    const there = cards.get(kind)
    if (there) return there
    const card = await answerOf(api.GET('/api/instruments/{ticket}/card', { params: { path: { ticket: of } } }))
    cards.set(kind, card)
    return card
  }

  /** Behind each figure of the sheet that is shown; fetched when one is opened, and anew with each sheet then. */
  const whys = ref<Record<string, Why>>({})
  async function loadWhys(): Promise<void> {
    const of = ticket.value
    try {
      const found = await answerOf(api.GET('/api/instruments/{ticket}/whys', { params: { path: { ticket: of } } }))
      if (of === ticket.value) whys.value = found
    } catch (error) {
      note(error)
    }
  }

  function sheetOf(of: string): Promise<SheetAnswer> {
    return answerOf(api.GET('/api/instruments/{ticket}/sheet', { params: { path: { ticket: of } } }))
  }

  async function refresh(): Promise<void> {
    const of = ticket.value
    if (of === '') return
    try {
      await ask(of, () => sheetOf(of))
      if (isAway.value) setTimeout(() => void flush(), RETRY_AFTER_MS)
    } catch (error) {
      note(error)
      if (isAway.value && sheet.value === null) setTimeout(() => void refresh(), RETRY_AFTER_MS)
    }
  }

  function noteAway(error: Refused): void {
    isAway.value = error.away
    // Up to its second half, which says what happens to what was typed: that stands here already, with how much it is.
    awayBecause.value = error.away && error.status >= 503 ? (error.message.split(/[;.]/)[0] ?? '') : ''
  }

  function note(error: unknown): void {
    if (!(error instanceof Refused)) throw error
    noteAway(error)
    if (!error.away || sheet.value === null) failure.value = error.message
  }

  /** Keep a reading here at once, and send it. */
  function take(cell: Cell, typed: string, repeats: boolean, simulated = false): void {
    if (!atBench.may('measure')) {
      failure.value = `${atBench.person} does not measure: whoever does gives a PIN first.`
      return
    }
    const afterWork = working ? null : (sheet.value?.last_work ?? 0)
    takeAt(ticket.value, cell, typed, afterWork, {
      repeats,
      tool: atBench.toolFor(cell.measure, cell.tools),
      paperAt: paperAt.value,
      shown: cell.reading_id,
      simulated,
    })
  }

  /** The same at any instrument. afterWork : the last work that was known there; returns the reading's id. */
  function takeAt(of: string, at: Pick<Cell, 'measure' | 'position'>, typed: string, afterWork: number | null, more: Manner = {}): string {
    setDraft(placeOf(at, of), '')
    notice.value = ''
    const id = freshId()
    const { measure, position } = at
    const { repeats = false, simulated = false, tool = atBench.tool, paperAt: written = '', shown = null } = more
    const taken_at = (written ? new Date(written) : new Date()).toISOString()
    const visit = ticket.value === of ? (sheet.value?.instrument.visit_id ?? null) : null
    const body = { id, visit, measure, position, typed, tool, taken_at, after_work: afterWork, shown, repeats, simulated, from_paper: written !== '' }
    waiting.value.push({ ticket: of, person: atBench.personId, body })
    void flush()
    return id
  }

  /** Send what waits, oldest first; done when all is sent, or the server is away. */
  function flush(): Promise<void> {
    flushing ??= sendWaiting().finally(() => {
      flushing = null
    })
    return flushing
  }

  function forget(id: string): void {
    waiting.value = waiting.value.filter((item) => item.body.id !== id)
  }

  function nextToSend(): Waiting | undefined {
    return waiting.value.find((item) => !held.has(item.body.id))
  }

  /**
   * A refusal gives the typed words back to their place. What waits for its taker's PIN is held back and lets the
   * others by: nobody's readings stand in anybody else's way.
   */
  async function sendWaiting(): Promise<void> {
    held.clear()
    heldBack.value = ''
    for (let next = nextToSend(); next !== undefined; next = nextToSend()) {
      const { ticket: of, body, person } = next
      try {
        if (body.after_work === null) {
          if (working) return
          body.after_work = (await sheetOf(of)).last_work
        }
        const numbered = { ...body, after_work: body.after_work }
        await ask(of, () =>
          answerOf(
            api.POST('/api/instruments/{ticket}/readings', {
              params: { path: { ticket: of } },
              headers: { 'X-Fidicula-Person': person },
              body: numbered,
            }),
          ),
        )
      } catch (error) {
        if (!(error instanceof Refused)) throw error
        noteAway(error)
        if (error.away) {
          if (error.status !== 401) setTimeout(() => void flush(), RETRY_AFTER_MS)
          return
        }
        if (error.status === 403) {
          held.add(body.id)
          heldBack.value = error.message
          continue
        }
        const place = placeOf({ measure: body.measure, position: body.position ?? null }, of)
        drafts.value[place] ??= body.typed
        refusals.value[place] = error.message
      }
      forget(body.id)
    }
  }

  /** Change something other than a reading; says whether it was done. */
  async function change(request: (of: string) => Promise<SheetAnswer>): Promise<boolean> {
    await flush()
    const of = ticket.value
    notice.value = ''
    try {
      await ask(of, () => request(of))
      return true
    } catch (error) {
      note(error)
      if (error instanceof Refused) failure.value = error.message
      if (error instanceof Refused && error.status === 409) {
        notice.value = error.message
        void refresh()
      }
      return false
    }
  }

  function confirm(cell: Cell): Promise<boolean> {
    const id = cell.reading_id
    return id === null ? Promise.resolve(false) : change((of) => requests.confirm(of, id))
  }

  /** Take back the newest entry: all that waits is sent first, or the wrong line would go. */
  async function undo(): Promise<boolean> {
    await working
    await flush()
    const unsent = waitingHere.value.filter((item) => !held.has(item.body.id)).at(-1)
    if (unsent) {
      forget(unsent.body.id)
      return true
    }
    const newest = sheet.value?.undoable
    if (!newest) return false
    return change((of) => takeBack(of, newest))
  }

  /** What is typed from here on was taken after the work, though the work may still be on its way. */
  async function doWork(work: string, words = ''): Promise<boolean> {
    const body = { id: freshId(), work, words, after_work: sheet.value?.last_work ?? null }
    const before = flush()
    const done = before.then(() =>
      change((of) =>
        answerOf(api.POST('/api/instruments/{ticket}/works', { params: { path: { ticket: of } }, body })),
      ),
    )
    working = done
    try {
      return await done
    } finally {
      if (working === done) working = null
      void flush()
    }
  }

  /** Take back one work that was written down. */
  function submitWorkBack(work_id: string): Promise<boolean> {
    return change((of) => requests.takeBackWork(of, work_id))
  }

  function handOver(): Promise<boolean> {
    return change((of) => requests.handOver(of).then(() => sheetOf(of)))
  }

  function takeBackHandOver(): Promise<boolean> {
    return change((of) => requests.takeBackHandOver(of).then(() => sheetOf(of)))
  }

  /** Change something for a form that asked: throws Refused with the fields at fault. */
  async function submit(request: (of: string) => Promise<SheetAnswer>): Promise<void> {
    await flush()
    await askHere(request)
  }
  function askHere(request: (of: string) => Promise<SheetAnswer>): Promise<void> {
    const of = ticket.value
    return ask(of, () => request(of))
  }

  /** Follow a recipe, own schools and other sources. Throws Refused, for the page that asked. */
  function chooseTargets(asked: FollowBody, reason: string): Promise<void> {
    return askHere((of) => requests.chooseTargets(of, { ...asked, reason, id: freshId() }))
  }

  /** Throws Refused with the fields at fault, for the form that asked. */
  function nameStrings(chosen: Omit<StringsBody, 'id'>): Promise<void> {
    return askHere((of) => requests.nameStrings(of, { ...chosen, id: freshId() }))
  }

  /* What waited for a sign-in or a PIN goes on its way once it is given. */
  watch(() => atBench.signedIn, (now) => {
    if (now) void refresh().then(flush)
  })

  return {
    ticket,
    sheet,
    failure,
    notice,
    heldBack,
    isAway,
    awayBecause,
    paperAt,
    waiting,
    waitingHere,
    drafts,
    refusals,
    placeOf,
    setDraft,
    open,
    refresh,
    flush,
    take,
    takeAt,
    confirm,
    undo,
    whys,
    loadWhys,
    doWork, submitWorkBack, chooseTargets, submit, handOver, takeBackHandOver, nameStrings,
  }
})
