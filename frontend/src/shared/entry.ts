/**
 * What a form holds until it is on record: one draft with one id, for one instrument.
 *
 * The rule of every form: a draft belongs to one instrument and one entry; it ends with its success, wherever the page
 * is by then; a form for something new is empty. A second press while it is on its way is no second entry.
 */
import { computed, reactive, watch, type ComputedRef } from 'vue'
import { Refused } from '@/api/refused'
import { freshId } from './id'
import { useStoredRecord } from './storedRecord'

export interface EntryOptions<Draft extends object> {
  /** Of the form: 'heard', 'arrival'. */
  kind: string
  /** What it belongs to, a ticket as a rule; empty for a form that there is once. */
  of: () => string
  /** What a form for something new holds, as things stand now. */
  empty: () => Draft
  /** Whether a reload finds the draft again. */
  isKept?: boolean
  /**
   * Whether the next one can be typed while this one is on its way, as in a form beside a page: then it is empty as
   * soon as it is sent, so that nothing is typed into what has gone. What is refused comes back.
   */
  isOpenAgainAtOnce?: boolean
}

export interface UseFormEntryReturn<Draft extends object> {
  draft: ComputedRef<Draft>
  id: ComputedRef<string>
  isSending: ComputedRef<boolean>
  /** Why the last try came to nothing, and that by field. */
  message: ComputedRef<string>
  faults: ComputedRef<Record<string, string>>
  /** The form opens: what was typed and not sent is there, else it is empty as things stand now. */
  begin: () => void
  /**
   * Whether it is on record, or kept in this browser until it is. run : throws Refused.
   * shut : the form, once it is; not where another instrument's stands open by then, nor under a hand that types on.
   */
  send: (run: (id: string, draft: Draft) => Promise<unknown>, shut?: () => void) => Promise<boolean>
  /** What was typed is not wanted. */
  clear: () => void
}

interface Entry<Draft> {
  id: string
  draft: Draft
  /** As it was when nothing was typed. */
  begun: string
  isSending: boolean
  /** What is on its way, while it is; and whether the next, pressed meanwhile, waits behind it. */
  onItsWay: Promise<boolean> | null
  isNextWaiting: boolean
  message: string
  faults: Record<string, string>
}
type Stored = { id: string; draft: object }

/** Of every form and instrument, for as long as this page lives. */
const entries = new Map<string, Entry<object>>()

/** Nobody is signed in any more: nothing that was typed stays on the page. */
export function forgetEntries(): void {
  entries.clear()
}

export function useFormEntry<Draft extends object>({ kind, of, empty, isKept = false, isOpenAgainAtOnce = false }: EntryOptions<Draft>): UseFormEntryReturn<Draft> {
  const stored = isKept ? useStoredRecord<Stored>(`entry/${kind}`) : null

  function entryOf(whose: string): Entry<Draft> {
    const key = `${kind}/${whose}`
    const there = entries.get(key)
    if (there) return there as Entry<Draft>
    const draft = empty()
    const kept = stored?.record.value[whose]
    const made = reactive({
      id: kept?.id ?? freshId(),
      draft: { ...draft, ...kept?.draft },
      begun: JSON.stringify(draft),
      isSending: false,
      onItsWay: null,
      isNextWaiting: false,
      message: '',
      faults: {},
    }) as Entry<Draft>
    entries.set(key, made)
    return made
  }
  const entry = computed(() => entryOf(of()))

  /** The next entry. typed : what of it is typed already. */
  function renew(one: Entry<Draft>, bare: Draft, typed = bare): void {
    one.id = freshId()
    one.begun = JSON.stringify(bare)
    one.draft = typed
    one.message = ''
    one.faults = {}
  }
  const isTouched = (one: Entry<Draft>) => JSON.stringify(one.draft) !== one.begun

  if (stored) {
    watch(
      () => [of(), entry.value.id, JSON.stringify(entry.value.draft), entry.value.isSending] as const,
      ([whose, id, , isSending]) => {
        const one = entryOf(whose)
        // What is on its way is kept by the outbox: a reload does not find it in its form once more.
        stored.set(whose, isTouched(one) && !isSending ? { id, draft: one.draft } : undefined)
      },
    )
  }

  function send(run: (id: string, draft: Draft) => Promise<unknown>, shut?: () => void): Promise<boolean> {
    const one = entry.value
    const whose = of()
    if (one.isSending) return sendNext(one, whose, run, shut)
    const onItsWay = sendNow(one, whose, run, shut)
    one.onItsWay = onItsWay
    return onItsWay
  }

  /** Pressed while one is on its way: what was typed since goes behind it, once, where its form is still open then. */
  async function sendNext(one: Entry<Draft>, whose: string, run: (id: string, draft: Draft) => Promise<unknown>, shut?: () => void): Promise<boolean> {
    if (!isOpenAgainAtOnce || one.isNextWaiting || !isTouched(one) || !one.onItsWay) return false
    one.isNextWaiting = true
    const isThrough = await one.onItsWay.finally(() => (one.isNextWaiting = false))
    return isThrough && whose === of() && isTouched(one) ? send(run, shut) : false
  }

  async function sendNow(one: Entry<Draft>, whose: string, run: (id: string, draft: Draft) => Promise<unknown>, shut?: () => void): Promise<boolean> {
    const sent = JSON.parse(JSON.stringify(one.draft)) as Draft
    one.isSending = true
    one.message = ''
    one.faults = {}
    const begun = one.begun
    const left = isOpenAgainAtOnce ? empty() : sent
    if (isOpenAgainAtOnce) {
      one.begun = JSON.stringify(left)
      one.draft = JSON.parse(one.begun) as Draft
    }
    try {
      await run(one.id, sent)
      // What was typed meanwhile, and only that, is of the next entry.
      const bare = empty()
      renew(one, bare, changedSince(left, one.draft, bare))
      stored?.set(whose, isTouched(one) ? { id: one.id, draft: one.draft } : undefined)
      if (whose === of() && !isTouched(one)) shut?.()
      return true
    } catch (error) {
      // It comes back, with what was typed over it meanwhile.
      if (isOpenAgainAtOnce) {
        one.draft = changedSince(left, one.draft, sent)
        one.begun = begun
      }
      if (!(error instanceof Refused)) throw error
      one.message = error.message
      one.faults = error.fields
      return false
    } finally {
      one.isSending = false
    }
  }

  return {
    draft: computed(() => entry.value.draft),
    id: computed(() => entry.value.id),
    isSending: computed(() => entry.value.isSending),
    message: computed(() => entry.value.message),
    faults: computed(() => entry.value.faults),
    begin: () => {
      const one = entry.value
      if (!isTouched(one) && !one.isSending) renew(one, empty())
      one.message = ''
      one.faults = {}
    },
    send,
    clear: () => {
      if (!entry.value.isSending) renew(entry.value, empty())
    },
  }
}

/** An empty draft with what stands otherwise now than when it was sent. */
export function changedSince<Draft extends object>(sent: Draft, now: Draft, empty: Draft): Draft {
  const [was, bare] = [new Map(Object.entries(sent)), new Map<string, unknown>(Object.entries(empty))]
  for (const [name, value] of Object.entries(now) as [string, unknown][]) {
    const before = was.get(name)
    if (JSON.stringify(value) === JSON.stringify(before)) continue
    const none = bare.get(name)
    bare.set(name, isPlain(value) && isPlain(before) ? changedSince(before, value, isPlain(none) ? none : {}) : value)
  }
  return Object.fromEntries(bare) as Draft
}

function isPlain(value: unknown): value is object {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}
