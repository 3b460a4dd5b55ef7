/** What belongs to an instrument, and the line about one thing that is being written. */
import { ref, watch, type Ref } from 'vue'
import { answerOf, api, Refused, type Belongings, type BelongingLine } from '@/api'
import { post, useOutbox, type Act } from '@/outbox'
import { t } from '@/words/belongings'

export interface UseBelongingsReturn {
  view: Ref<Belongings | null>
  failure: Ref<string>
  /** Throws Refused, for the form. */
  enter: (line: BelongingLine) => Promise<void>
  takeBack: (id: string) => Promise<void>
}

export function useBelongings(ticket: () => string): UseBelongingsReturn {
  const outbox = useOutbox()
  const view = ref<Belongings | null>(null)
  const failure = ref('')
  let asked = 0

  /** The next instrument's belongings are asked for whatever is still on its way for the one before. */
  async function load(): Promise<void> {
    const mine = ++asked
    view.value = null
    failure.value = ''
    try {
      const found = await answerOf(api.GET('/api/instruments/{ticket}/belongings', { params: { path: { ticket: ticket() } } }))
      if (mine === asked) view.value = found
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      if (mine === asked) failure.value = error.message
    }
  }
  watch(ticket, () => void load(), { immediate: true })

  /** At the instrument that shows now; what it answered, while that still shows. */
  async function submit(act: Act): Promise<void> {
    const of = ticket()
    failure.value = ''
    const done = await outbox.submit(act)
    if (!done.sent || of !== ticket()) return
    asked += 1
    view.value = done.answer as Belongings
  }
  async function takeBack(entry_id: string): Promise<void> {
    const of = ticket()
    try {
      await submit(post('/api/instruments/{ticket}/belongings/{entry_id}/take-back', { params: { path: { ticket: of, entry_id } }, words: t('undo_belonging') }))
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      if (of === ticket()) failure.value = error.message
    }
  }
  return {
    view,
    failure,
    enter: (line) => submit(post('/api/instruments/{ticket}/belongings', { params: { path: { ticket: ticket() } }, body: line, words: t('belonging', { which: line.which || line.kind }) })),
    takeBack,
  }
}
