/** Acts at one instrument that its page posts itself: in their turn, each at the instrument it was begun at. */
import { ref, type ComputedRef, type Ref } from 'vue'
import { Refused } from '@/api/refused'
import { useInTurn } from './inTurn'

export type AtTicket = { params: { path: { ticket: string } } }

export interface TicketActs<Answer> {
  ticket: () => string
  /** What an act answered, while its instrument still shows. */
  show: (answer: Answer) => void | Promise<void>
  /** After a refusal that shows. */
  refused?: () => void
}

export interface UseTicketActsReturn<Answer> {
  /** Why the last act, or the page, came to nothing; and that by field. */
  failure: Ref<string>
  faults: Ref<Record<string, string>>
  isSending: ComputedRef<boolean>
  /** False where it was refused, which `failure` says. what : the same pressed twice is one. */
  act: (what: string, run: (at: AtTicket) => Promise<Answer>) => Promise<boolean>
  /** The same for a form, which says itself what was refused: throws Refused. */
  run: (what: string, run: (at: AtTicket) => Promise<Answer>) => Promise<void>
}

export function useTicketActs<Answer>({ ticket, show, refused }: TicketActs<Answer>): UseTicketActsReturn<Answer> {
  const { inTurn, isSending } = useInTurn()
  const failure = ref('')
  const faults = ref<Record<string, string>>({})

  function run(what: string, ask: (at: AtTicket) => Promise<Answer>): Promise<void> {
    const of = ticket()
    faults.value = {}
    failure.value = ''
    return inTurn(`${of} ${what}`, async () => {
      try {
        const answer = await ask({ params: { path: { ticket: of } } })
        if (of === ticket()) await show(answer)
      } catch (error) {
        if (error instanceof Refused && of === ticket()) refused?.()
        throw error
      }
    })
  }
  async function act(what: string, ask: (at: AtTicket) => Promise<Answer>): Promise<boolean> {
    const of = ticket()
    try {
      await run(what, ask)
      return true
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      if (of !== ticket()) return false
      faults.value = error.fields
      failure.value = error.message
      return false
    }
  }
  return { failure, faults, isSending, act, run }
}
