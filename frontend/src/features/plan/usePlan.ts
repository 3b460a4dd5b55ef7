/** A visit's plan, and changes to it, each of which answers with the whole. */
import { ref, watch, type ComputedRef, type Ref } from 'vue'
import { answerOf, api, Refused, type VisitPlan } from '@/api'
import { useBench } from '@/features/bench'
import { freshId } from '@/shared/id'
import { useTicketActs, type AtTicket } from '@/shared/ticketActs'

export type Grade = VisitPlan['variants'][number]['grade']
export type How = 'in_person' | 'phone' | 'letter' | 'signature'
export interface ApprovalForm {
  who: string
  how: How
  up_to: string
  words: string
  signature: string
  /** Ids of the works that the owner agrees to. */
  lines: string[]
}

export interface UsePlanReturn {
  plan: Ref<VisitPlan | null>
  /** Why the page, or the last change, came to nothing; and that by field. */
  failure: Ref<string>
  faults: Ref<Record<string, string>>
  isSending: ComputedRef<boolean>
  load: () => Promise<void>
  /** What was refused before is no longer said. */
  clear: () => void
  add: (works: string[]) => Promise<boolean>
  /** One more, by wish or because of what was found underway. Throws Refused, for its form. */
  addOne: (id: string, work: string, because: string) => Promise<void>
  drop: (line: string) => Promise<boolean>
  move: (line: string, before: string | null) => Promise<boolean>
  grade: (line: string, grade: Grade) => Promise<boolean>
  use: (line: string, item: string, count: string) => Promise<boolean>
  putBack: (part: string) => Promise<boolean>
  begin: (line: string) => Promise<boolean>
  pause: (line: string) => Promise<boolean>
  finish: (line: string, minutes: string) => Promise<boolean>
  /** Throws Refused, for its form. */
  discount: (id: string, percent: string, reason: string) => Promise<void>
  /** Throws Refused, for its form. total : as it was shown for these works. */
  approve: (id: string, form: ApprovalForm, total: string) => Promise<void>
  takeBack: (approval: string) => Promise<boolean>
}

export function usePlan(ticket: () => string): UsePlanReturn {
  const bench = useBench()
  const plan = ref<VisitPlan | null>(null)
  const { failure, faults, isSending, act, run } = useTicketActs<VisitPlan>({
    ticket,
    /** What was begun, finished or approved also moves the sheet and the rail. */
    show: async (now) => {
      asked += 1
      plan.value = now
      await bench.refresh()
    },
    refused: () => void look(),
  })
  let asked = 0

  async function load(): Promise<void> {
    const mine = ++asked
    try {
      const found = await answerOf(api.GET('/api/instruments/{ticket}/plan', { params: { path: { ticket: ticket() } } }))
      if (mine !== asked) return
      plan.value = found
      failure.value = ''
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      failure.value = error.message
    }
  }

  /** As it stands now: somebody else may have changed it, which is why an act was refused. */
  async function look(): Promise<void> {
    const of = ticket()
    try {
      const found = await answerOf(api.GET('/api/instruments/{ticket}/plan', { params: { path: { ticket: of } } }))
      if (of === ticket()) plan.value = found
    } catch (error) {
      if (!(error instanceof Refused)) throw error
    }
  }

  watch(ticket, () => {
    plan.value = null
    void load()
  }, { immediate: true })

  const addLines = (at: AtTicket, id: string, works: string[], underway: string) =>
    answerOf(api.POST('/api/instruments/{ticket}/plan/lines', { ...at, body: { id, works, origin: underway ? 'underway' : 'wish', because: '', reason: underway } }))
  const line = ({ params: { path } }: AtTicket, line_id: string) => ({ params: { path: { ...path, line_id } } })
  return {
    plan,
    failure,
    faults,
    isSending,
    load,
    clear: () => {
      faults.value = {}
      failure.value = ''
    },
    add: (works) => act(`add ${works.join(' ')}`, (at) => addLines(at, freshId(), works, '')),
    addOne: (id, work, because) => run(`add ${id}`, (at) => addLines(at, id, [work], because)),
    drop: (id) => act(`drop ${id}`, (at) => answerOf(api.POST('/api/instruments/{ticket}/plan/lines/{line_id}/drop', line(at, id)))),
    move: (id, before) =>
      act(`move ${id} ${before}`, (at) => answerOf(api.POST('/api/instruments/{ticket}/plan/lines/{line_id}/move', { ...line(at, id), body: { before } }))),
    grade: (id, grade) =>
      act(`grade ${id} ${grade}`, (at) => answerOf(api.PUT('/api/instruments/{ticket}/plan/lines/{line_id}/grade', { ...line(at, id), body: { grade } }))),
    use: (id, item, count) =>
      act(`use ${id} ${item}`, (at) =>
        answerOf(api.POST('/api/instruments/{ticket}/plan/lines/{line_id}/parts', { ...line(at, id), body: { id: freshId(), item, count } })),
      ),
    putBack: (part_id) =>
      act(`put back ${part_id}`, ({ params: { path } }) => answerOf(api.POST('/api/instruments/{ticket}/plan/parts/{part_id}/put-back', { params: { path: { ...path, part_id } } }))),
    begin: (id) =>
      act(`begin ${id}`, (at) => answerOf(api.POST('/api/instruments/{ticket}/plan/lines/{line_id}/begin', { ...line(at, id), body: { id: freshId() } }))),
    pause: (id) => act(`pause ${id}`, (at) => answerOf(api.POST('/api/instruments/{ticket}/plan/lines/{line_id}/pause', line(at, id)))),
    finish: (id, minutes) =>
      act(`finish ${id}`, (at) => answerOf(api.POST('/api/instruments/{ticket}/plan/lines/{line_id}/finish', { ...line(at, id), body: { id: freshId(), minutes } }))),
    discount: (id, percent, reason) =>
      run(`discount ${id}`, (at) => answerOf(api.POST('/api/instruments/{ticket}/plan/discount', { ...at, body: { id, percent, reason } }))),
    approve: (id, form, total) => run(`approve ${id}`, (at) => answerOf(api.POST('/api/instruments/{ticket}/plan/approvals', { ...at, body: { id, ...form, total } }))),
    takeBack: (approval_id) =>
      act(`take back ${approval_id}`, ({ params: { path } }) =>
        answerOf(api.POST('/api/instruments/{ticket}/plan/approvals/{approval_id}/take-back', { params: { path: { ...path, approval_id } } })),
      ),
  }
}
