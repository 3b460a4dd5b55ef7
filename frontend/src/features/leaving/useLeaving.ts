/** The checklist of a visit, and what is said and signed as it ends. */
import { ref, watch, type ComputedRef, type Ref } from 'vue'
import { answerOf, api, Refused, type Checklist } from '@/api'
import { useBench } from '@/features/bench'
import { freshId } from '@/shared/id'
import { useTicketActs, type AtTicket } from '@/shared/ticketActs'

export interface Leave {
  pin: string
  left_open: Record<string, string>
  next_check: string
  next_check_why: string
  received_by: string
  signature: string
}

export interface UseLeavingReturn {
  list: Ref<Checklist | null>
  /** Why the page, or the last act, came to nothing; and that by field. */
  failure: Ref<string>
  faults: Ref<Record<string, string>>
  isSending: ComputedRef<boolean>
  /** These points are right. */
  check: (points: string[]) => Promise<boolean>
  /** Throws Refused, for its form. */
  notRight: (id: string, point: string, words: string) => Promise<void>
  undoCheck: (point: string) => Promise<boolean>
  handOver: (leave: Leave) => Promise<boolean>
  takeBack: () => Promise<boolean>
  /** Throws Refused, for its form. */
  add: (id: string, words: string) => Promise<void>
}

export function useLeaving(ticket: () => string): UseLeavingReturn {
  const bench = useBench()
  const list = ref<Checklist | null>(null)
  const { failure, faults, isSending, act, run } = useTicketActs<Checklist | null>({
    ticket,
    show: (now) => {
      asked += 1
      if (now) list.value = now
    },
  })
  /** Of the signature that is being given: sent again after a lost answer it is the same. */
  let sealId = freshId()
  let asked = 0

  async function load(): Promise<void> {
    const mine = ++asked
    try {
      const found = await answerOf(api.GET('/api/instruments/{ticket}/checklist', { params: { path: { ticket: ticket() } } }))
      if (mine === asked) list.value = found
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      if (mine === asked) failure.value = error.message
    }
  }

  watch(ticket, () => {
    list.value = null
    failure.value = ''
    sealId = freshId()
    void load()
  }, { immediate: true })
  /** What is read or done elsewhere is part of the list. */
  watch(() => bench.sheet, (now, before) => {
    if (before && now && now.instrument.ticket === ticket() && !isSending.value) void load()
  })

  async function moved(what: string, run: (at: AtTicket) => Promise<Checklist>): Promise<boolean> {
    const done = await act(what, run)
    if (done) await bench.refresh()
    return done
  }
  return {
    list,
    failure,
    faults,
    isSending,
    check: (points) =>
      act(`check ${points.join(' ')}`, (at) => answerOf(api.POST('/api/instruments/{ticket}/checks', { ...at, body: { id: freshId(), points, verdict: 'right', words: '' } }))),
    notRight: (id, point, words) =>
      run(`not right ${id}`, (at) => answerOf(api.POST('/api/instruments/{ticket}/checks', { ...at, body: { id, points: [point], verdict: 'not_right', words } }))),
    undoCheck: (point) => act(`undo ${point}`, (at) => answerOf(api.POST('/api/instruments/{ticket}/checks/take-back', { ...at, body: { point } }))),
    handOver: (leave) => {
      // As it was signed, though it may wait its turn.
      const body = { ...leave, id: sealId, next_check: leave.next_check || null }
      return moved('hand over', (at) => answerOf(api.POST('/api/instruments/{ticket}/hand-over', { ...at, body })))
    },
    takeBack: () => {
      sealId = freshId()
      return moved('take back', (at) => answerOf(api.POST('/api/instruments/{ticket}/hand-over/take-back', at)))
    },
    add: (id, words) => {
      const visit_id = list.value?.visit_id ?? ''
      return run(`add ${id}`, async (at) => {
        const additions = await answerOf(api.POST('/api/instruments/{ticket}/additions', { ...at, body: { id, visit_id, words } }))
        return list.value && { ...list.value, additions }
      })
    },
  }
}
