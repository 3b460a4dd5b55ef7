/** What belongs to an instrument, and the line about one thing that is being written. */
import { ref, watch, type ComputedRef, type Ref } from 'vue'
import { answerOf, api, Refused, type Belongings, type BelongingLine } from '@/api'
import { useInTurn } from '@/shared/inTurn'

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
  const failure = ref('')
  const faults = ref<Record<string, string>>({})
  const { inTurn, isSending } = useInTurn()

  /** what : the same pressed twice is one. */
  function run(what: string, ask: (of: string) => Promise<Belongings>): Promise<boolean> {
    const of = ticket()
    failure.value = ''
    faults.value = {}
    return inTurn(`${of} ${what}`, async () => {
      try {
        const found = await ask(of)
        if (of === ticket()) view.value = found
        return true
      } catch (error) {
        if (!(error instanceof Refused)) throw error
        if (of !== ticket()) return false
        faults.value = error.fields
        failure.value = Object.keys(error.fields).length ? '' : error.message
        return false
      }
    })
  }
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
    enter: (line) =>
      run(`enter ${line.id}`, (ticket) => answerOf(api.POST('/api/instruments/{ticket}/belongings', { params: { path: { ticket } }, body: line }))),
    takeBack: (entry_id) =>
      run(`take back ${entry_id}`, (ticket) =>
        answerOf(api.POST('/api/instruments/{ticket}/belongings/{entry_id}/take-back', { params: { path: { ticket, entry_id } } })),
      ),
  }
}
