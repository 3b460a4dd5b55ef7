/** One instrument at the bench: its sheet, and readings that wait until the server has them. */
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { answerOf, api, isKept, onBack, reach, Refused, type BenchSheet, type CardPlace, type Cell, type FollowBody, type ReadingBody, type SheetAnswer, type StringsBody, type Why } from '@/api'
import { post, useOutbox, type Act, type Row } from '@/outbox'
import { freshId } from '@/shared/id'
import { keep } from '@/shared/kept'
import { useAtBench } from '@/shared/person'
import { useStoredRecord } from '@/shared/storedRecord'
import { keyOf, type Place } from './places'
import * as acts from './acts'
import type { Undone } from './acts'
import { overtaken } from './overtaken'
import { READINGS, type Manner, type Waiting } from './waiting'
import { whole } from './whole'
import { t } from '@/words/bench'

/** Once nothing else is asked for. */
const SEEN_AFTER_MS = 1500

export const useBench = defineStore('bench', () => {
  const atBench = useAtBench()
  const outbox = useOutbox()
  const ticket = ref('')
  const sheet = ref<BenchSheet | null>(null)
  const failure = ref('')
  /** What somebody else wrote meanwhile at the same place; stays until the next entry here. */
  const notice = ref('')
  /** Whether the sheet that shows is what was last seen, and not what is so now. */
  const isOld = ref(false)
  /** When the card was written that is being entered; empty while readings are of now. */
  const paperAt = ref('')
  /** Typed and not yet taken, by ticket and place: nothing typed is lost by leaving. */
  const { record: drafts, set: keepDraft } = useStoredRecord<string>('draft')
  const { record: refusals, set: keepRefusal } = useStoredRecord<string>('refusal')
  let asked = 0
  let shown = 0
  /** Which answer of each instrument this browser keeps. */
  const kept = new Map<string, number>()

  /** Sent from here without an answer, and not in the sheet that shows: the answer to one that waits behind them tells of them. */
  const untold = shallowRef<{ row: Row; at: number }[]>([])
  const waiting = computed<Waiting[]>(() =>
    [...untold.value.map((one) => one.row), ...outbox.rows.filter((row) => row.path === READINGS && row.state !== 'refused')]
      .map((row) => ({ ticket: row.ticket, row, body: row.body as ReadingBody })),
  )
  const waitingHere = computed(() => waiting.value.filter((item) => item.ticket === ticket.value))
  /** Everything else that waits here for this instrument, in words. */
  const actsWaiting = computed(() => outbox.rows.filter((row) => row.ticket === ticket.value && row.path !== READINGS && row.state !== 'refused'))

  function placeOf(cell: Place, of = ticket.value): string {
    return `${of}/${keyOf(cell)}`
  }

  /** Show a sheet unless a newer answer, or another instrument, came between. mine : when it was asked for. */
  async function show(of: string, answer: SheetAnswer, mine: number): Promise<void> {
    const wasKept = isKept(answer)
    const card = await cardOf(of, answer.instrument)
    // An answer that was asked for before another one that is here already may be older: it is not kept over that.
    if (!wasKept && mine > (kept.get(of) ?? 0)) {
      kept.set(of, mine)
      keep(`/api/instruments/${encodeURIComponent(of)}/sheet`, answer)
    }
    if (of === ticket.value && mine > shown && !(wasKept && sheet.value)) {
      shown = mine
      isOld.value = wasKept
      const now = whole(answer, card)
      const theirs = overtaken(sheet.value, now, atBench.person)
      sheet.value = now
      if (untold.value.length) untold.value = untold.value.filter((one) => one.at >= mine)
      failure.value = ''
      if (answer.notice || theirs) notice.value = answer.notice || theirs
    } else if (of === ticket.value && wasKept) {
      isOld.value = true
    }
  }

  /** Keep what is typed at a place; nothing typed there any more forgets its refusal too. */
  function setDraft(place: string, text: string): void {
    keepDraft(place, text || undefined)
    if (place in refusals.value) keepRefusal(place, undefined)
  }

  async function open(name: string): Promise<void> {
    if (ticket.value !== name) {
      ticket.value = name
      atBench.putBack()
      sheet.value = null
      untold.value = []
      whys.value = {}
      failure.value = ''
      notice.value = ''
    }
    await refresh()
    if (!isOld.value && sheet.value) seeBeside(name)
  }

  /** The other pages of an instrument that was opened are seen once too, so that they open without a server. */
  const seen = new Set<string>()
  function seeBeside(of: string): void {
    if (seen.has(of) || !('serviceWorker' in navigator) || !navigator.serviceWorker.controller) return
    seen.add(of)
    const pages = ['look', 'photos', 'strings', 'string-sets', 'sound?complaint=']
    setTimeout(() => {
      for (const page of pages) void fetch(`/api/instruments/${encodeURIComponent(of)}/${page}`).catch(() => undefined)
    }, SEEN_AFTER_MS)
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

  /** Behind each figure of the sheet that is shown; fetched when one is opened, and again with each sheet then. */
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
    const mine = ++asked
    try {
      await show(of, await sheetOf(of), mine)
    } catch (error) {
      note(error)
    }
  }

  function note(error: unknown): void {
    if (!(error instanceof Refused)) throw error
    if (!error.away || sheet.value === null) failure.value = error.message
  }

  /** Keep a reading here at once, and send it; its id, empty where whoever is at the bench does not measure. */
  function take(cell: Cell, typed: string, repeats: boolean, simulated = false): string {
    if (!atBench.may('measure')) {
      failure.value = t('does_not_measure_whoever_does', { person: atBench.person })
      return ''
    }
    const id = takeAt(ticket.value, cell, typed, sheet.value?.last_work ?? 0, {
      repeats,
      tool: atBench.toolFor(cell.measure, cell.tools),
      paperAt: paperAt.value,
      shown: cell.reading_id,
      simulated,
    })
    atBench.putBack(cell.measure)
    return id
  }

  /** The same at any instrument. afterWork : the last work that was known there; returns the reading's id. */
  function takeAt(of: string, at: Place & Pick<Cell, 'name'>, typed: string, afterWork: number, more: Manner = {}): string {
    setDraft(placeOf(at, of), '')
    notice.value = ''
    forgetUndone(of)
    const id = freshId()
    const { measure, position } = at
    const { repeats = false, simulated = false, tool = 'caliper', paperAt: written = '', shown = null } = more
    const taken_at = (written ? new Date(written) : new Date()).toISOString()
    const visit = ticket.value === of ? (sheet.value?.instrument.visit_id ?? null) : null
    const body = { id, visit, measure, position, typed, tool, taken_at, after_work: afterWork, after_act: workOnItsWay(of), shown, repeats, simulated, from_paper: written !== '' }
    outbox.enter(post(READINGS, { params: { path: { ticket: of } }, body, words: `${at.name}: ${typed}` }), { id })
    return id
  }

  /** The last work at an instrument that waits here: what is typed from there on was taken after it. */
  function workOnItsWay(of: string): string | null {
    return outbox.rows.filter((row) => row.ticket === of && row.work && row.state !== 'refused').at(-1)?.work ?? null
  }

  /** A reading that was refused gives its words back to its place, unless something else is typed there by now. */
  function giveBack(row: Row): boolean {
    if (row.path !== READINGS) return false
    const body = row.body as ReadingBody
    const place = placeOf({ measure: body.measure, position: body.position ?? null }, row.ticket)
    const typed = drafts.value[place]
    if (typed !== undefined && typed !== body.typed) return false
    keepRefusal(place, row.says)
    keepDraft(place, body.typed)
    return true
  }
  outbox.onRefused.add(giveBack)
  outbox.onSent.add((row, answer) => {
    if (isSheet(answer)) void show(row.ticket, answer, ++asked)
    else if (row.ticket !== ticket.value) return
    // The outbox's rows change with it, and of many a few times a second: that is when it is looked at.
    else if (row.path === READINGS) untold.value.push({ row, at: asked })
    else if (answer !== undefined) void refresh()
  })
  /** Nothing is on its way any more that would tell of them: it was refused, or withdrawn. */
  const tells = (row: Row) => row.path === READINGS && row.ticket === ticket.value && row.state === 'waiting' && !row.failed
  watch(() => !outbox.rows.some(tells) && untold.value.length > 0, (isLeft) => {
    if (isLeft) void refresh()
  })

  function forgetUndone(of: string): void {
    undone.value = undone.value.filter((one) => one.ticket !== of)
  }

  /** Everything that goes to the instrument that shows now, at the visit that shows. */
  function entered(act: (of: string) => Act): Promise<{ sent: boolean }> {
    notice.value = ''
    return outbox.submit(act(ticket.value), { visit: sheet.value?.instrument.visit_id ?? '' })
  }

  /** For a form, which shows a refusal itself: throws Refused; says whether the server has it by now. */
  async function submit(act: (of: string) => Act): Promise<boolean> {
    forgetUndone(ticket.value)
    return (await entered(act)).sent
  }

  /** For everything else; false where it was refused, which is said on the page. */
  async function change(act: (of: string) => Act): Promise<boolean> {
    try {
      await entered(act)
      return true
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      failure.value = error.message
      if (error.status === 409) {
        notice.value = error.message
        void refresh()
      }
      return false
    }
  }

  /** Let a doubted reading count; the one that stands there, or one that is still on its way. */
  function confirm(cell: Cell, id = cell.reading_id): Promise<boolean> {
    return id === null ? Promise.resolve(false) : change((of) => acts.confirm(of, id, cell.name))
  }

  /** What was taken back here last, while nothing was entered since: it can stand again. */
  const undone = ref<Undone[]>([])
  const redoable = computed(() => undone.value.filter((one) => one.ticket === ticket.value).at(-1) ?? null)

  /** Take back the newest entry, and say what it was: one that was not sent yet simply goes. False for nothing. */
  async function undo(): Promise<boolean> {
    const of = ticket.value
    const unsent = outbox.rows.filter((row) => row.ticket === of && row.state === 'waiting').at(-1)
    if (unsent && (await outbox.drop(unsent))) {
      notice.value = t('undone_it_had_not_been', { unsent: unsent.words })
      return true
    }
    if (unsent) await outbox.pump()
    if (untold.value.length) await refresh()
    const newest = sheet.value?.undoable
    if (!newest || of !== ticket.value) return false
    if (!(await change(() => acts.takeBack(of, newest)))) return false
    if (newest.kind !== 'choice') undone.value.push({ ticket: of, ...newest, kind: newest.kind })
    notice.value = t('undone', { newest: newest.words })
    return true
  }

  /** Let stand again what was taken back last. */
  async function redo(): Promise<boolean> {
    const last = redoable.value
    if (!last || !(await change((of) => acts.redo(of, last)))) return false
    undone.value = undone.value.filter((one) => one !== last)
    notice.value = t('redone', { last: last.words })
    return true
  }

  /** Write down a work done here. What is typed from here on was taken after it, though it may be on its way. */
  async function doWork(work: string, words = '', label = work, id = freshId(), said: { filed?: string[]; turned?: string[]; tension?: string } = {}): Promise<boolean> {
    if (actsWaiting.value.at(-1)?.work && actsWaiting.value.at(-1)?.words === label && !waitingHere.value.length) {
      notice.value = t('waits_here_already', { label })
      return false
    }
    forgetUndone(ticket.value)
    const after_work = workOnItsWay(ticket.value) ? null : (sheet.value?.last_work ?? null)
    return change((of) => post('/api/instruments/{ticket}/works', { params: { path: { ticket: of } }, body: { id, work, words, filed: [], turned: [], tension: '', ...said, after_work }, words: label, work: id }))
  }

  /** Take back one work that was written down. */
  function submitWorkBack(work_id: string, words: string): Promise<boolean> {
    return change((of) => acts.takeBackWork(of, work_id, words))
  }

  async function takeBackHandOver(): Promise<boolean> {
    const done = await change(acts.takeBackHandOver)
    if (done) await refresh()
    return done
  }

  /** Follow a recipe, own schools and other sources. Throws Refused, for the page that asked. */
  function chooseTargets(asked: FollowBody, reason: string): Promise<boolean> {
    return submit((of) => acts.chooseTargets(of, { ...asked, reason, id: freshId() }))
  }

  /** Throws Refused with the fields at fault, for the form that asked. */
  function nameStrings(id: string, chosen: Omit<StringsBody, 'id'>): Promise<boolean> {
    return submit((of) => acts.nameStrings(of, { ...chosen, id }))
  }

  watch(() => atBench.signedIn, (now) => {
    if (now) void refresh()
  })
  onBack(() => void refresh())

  return {
    ticket,
    sheet,
    failure,
    notice,
    isAway: computed(() => reach.isAway),
    isOld,
    paperAt,
    waiting,
    waitingHere,
    actsWaiting,
    drafts,
    refusals,
    placeOf,
    setDraft,
    open,
    refresh,
    take, takeAt, confirm, undo, redo, redoable,
    whys,
    loadWhys,
    doWork, submitWorkBack, chooseTargets, submit, takeBackHandOver, nameStrings,
  }
})

function isSheet(answer: unknown): answer is SheetAnswer {
  return typeof answer === 'object' && answer !== null && 'cells' in answer && 'instruction' in answer
}
