/** A visit's plan, and changes to it, each of which answers with the whole. */
import { ref, watch, type Ref } from 'vue'
import { answerOf, api, Refused, type VisitPlan } from '@/api'
import { useBench } from '@/features/bench'
import { freshId } from '@/shared/id'

export type Grade = VisitPlan['variants'][number]['grade']
export type How = 'in_person' | 'phone' | 'letter' | 'signature'
export interface ApprovalForm {
  who: string
  how: How
  up_to: string
  words: string
  signature: string
}

export interface UsePlanReturn {
  plan: Ref<VisitPlan | null>
  /** Why the page, or the last change, came to nothing; and that by field. */
  failure: Ref<string>
  faults: Ref<Record<string, string>>
  isSending: Ref<boolean>
  load: () => Promise<void>
  /** What was refused before is no longer said. */
  clear: () => void
  add: (works: string[], underway?: string) => Promise<boolean>
  drop: (line: string) => Promise<boolean>
  move: (line: string, before: string | null) => Promise<boolean>
  grade: (line: string, grade: Grade) => Promise<boolean>
  use: (line: string, item: string, count: string) => Promise<boolean>
  putBack: (part: string) => Promise<boolean>
  begin: (line: string) => Promise<boolean>
  pause: (line: string) => Promise<boolean>
  finish: (line: string, minutes: string) => Promise<boolean>
  discount: (percent: string, reason: string) => Promise<boolean>
  approve: (form: ApprovalForm) => Promise<boolean>
  takeBack: (approval: string) => Promise<boolean>
}

export function usePlan(ticket: () => string): UsePlanReturn {
  const bench = useBench()
  const plan = ref<VisitPlan | null>(null)
  const failure = ref('')
  const faults = ref<Record<string, string>>({})
  const isSending = ref(false)
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

  /** What was begun, finished or approved also moves the sheet and the rail. */
  async function change(act: () => Promise<VisitPlan>): Promise<boolean> {
    if (isSending.value) return false
    isSending.value = true
    const of = ticket()
    faults.value = {}
    failure.value = ''
    try {
      const now = await act()
      if (of !== ticket()) return true
      asked += 1
      plan.value = now
      await bench.refresh()
      return true
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      faults.value = error.fields
      failure.value = error.message
      void look()
      return false
    } finally {
      isSending.value = false
    }
  }

  watch(ticket, () => {
    plan.value = null
    void load()
  }, { immediate: true })

  const path = () => ({ ticket: ticket() })
  const at = (line_id: string) => ({ params: { path: { ...path(), line_id } } })
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
    add: (works, underway = '') =>
      change(() =>
        answerOf(
          api.POST('/api/instruments/{ticket}/plan/lines', {
            params: { path: path() },
            body: { id: freshId(), works, origin: underway ? 'underway' : 'wish', because: '', reason: underway },
          }),
        ),
      ),
    drop: (line) => change(() => answerOf(api.POST('/api/instruments/{ticket}/plan/lines/{line_id}/drop', at(line)))),
    move: (line, before) => change(() => answerOf(api.POST('/api/instruments/{ticket}/plan/lines/{line_id}/move', { ...at(line), body: { before } }))),
    grade: (line, grade) => change(() => answerOf(api.PUT('/api/instruments/{ticket}/plan/lines/{line_id}/grade', { ...at(line), body: { grade } }))),
    use: (line, item, count) =>
      change(() => answerOf(api.POST('/api/instruments/{ticket}/plan/lines/{line_id}/parts', { ...at(line), body: { id: freshId(), item, count } }))),
    putBack: (part_id) => change(() => answerOf(api.POST('/api/instruments/{ticket}/plan/parts/{part_id}/put-back', { params: { path: { ...path(), part_id } } }))),
    begin: (line) => change(() => answerOf(api.POST('/api/instruments/{ticket}/plan/lines/{line_id}/begin', { ...at(line), body: { id: freshId() } }))),
    pause: (line) => change(() => answerOf(api.POST('/api/instruments/{ticket}/plan/lines/{line_id}/pause', at(line)))),
    finish: (line, minutes) =>
      change(() => answerOf(api.POST('/api/instruments/{ticket}/plan/lines/{line_id}/finish', { ...at(line), body: { id: freshId(), minutes } }))),
    discount: (percent, reason) =>
      change(() => answerOf(api.POST('/api/instruments/{ticket}/plan/discount', { params: { path: path() }, body: { id: freshId(), percent, reason } }))),
    approve: (form) =>
      change(() =>
        answerOf(
          api.POST('/api/instruments/{ticket}/plan/approvals', {
            params: { path: path() },
            body: { id: freshId(), ...form, total: plan.value?.total ?? '' },
          }),
        ),
      ),
    takeBack: (approval_id) =>
      change(() => answerOf(api.POST('/api/instruments/{ticket}/plan/approvals/{approval_id}/take-back', { params: { path: { ...path(), approval_id } } }))),
  }
}
