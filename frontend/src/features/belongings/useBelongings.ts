/** What belongs to an instrument, and the line about one thing that is being written. */
import { ref, watch, type ComputedRef, type Ref } from 'vue'
import { answerOf, api, Refused, type Belongings, type BelongingLine } from '@/api'
import { useTicketActs } from '@/shared/ticketActs'

export interface UseBelongingsReturn {
  view: Ref<Belongings | null>
  failure: Ref<string>
  faults: Ref<Record<string, string>>
  isSending: ComputedRef<boolean>
  enter: (line: BelongingLine) => Promise<boolean>
  takeBack: (id: string) => Promise<boolean>
}

export function useBelongings(ticket: () => string): UseBelongingsReturn {
  const view = ref<Belongings | null>(null)
  const { failure, faults, isSending, act } = useTicketActs<Belongings>({ ticket, show: (found) => void (view.value = found) })

  /** The next instrument's belongings are asked for whatever is still on its way for the one before. */
  async function load(): Promise<void> {
    const of = ticket()
    view.value = null
    failure.value = ''
    faults.value = {}
    try {
      const found = await answerOf(api.GET('/api/instruments/{ticket}/belongings', { params: { path: { ticket: of } } }))
      if (of === ticket() && !view.value) view.value = found
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      if (of === ticket()) failure.value = error.message
    }
  }
  watch(ticket, () => void load(), { immediate: true })
  return {
    view,
    failure,
    faults,
    isSending,
    enter: (line) => act(`enter ${line.id}`, (at) => answerOf(api.POST('/api/instruments/{ticket}/belongings', { ...at, body: line }))),
    takeBack: (entry_id) =>
      act(`take back ${entry_id}`, ({ params: { path } }) =>
        answerOf(api.POST('/api/instruments/{ticket}/belongings/{entry_id}/take-back', { params: { path: { ...path, entry_id } } })),
      ),
  }
}
