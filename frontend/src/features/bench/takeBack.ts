/** Taking back the newest entry, whatever it is. */
import { answerOf, api, type SheetAnswer, type Undoable } from '@/api'
import { takeBackWork } from './requests'

type TakeBack = (ticket: string, id: string) => Promise<SheetAnswer>

const OF_KIND: Record<Undoable['kind'], TakeBack> = {
  reading: (ticket, reading_id) =>
    answerOf(api.POST('/api/instruments/{ticket}/readings/{reading_id}/take-back', { params: { path: { ticket, reading_id } } })),
  work: takeBackWork,
  decision: (ticket, decision_id) =>
    answerOf(api.POST('/api/instruments/{ticket}/decisions/{decision_id}/take-back', { params: { path: { ticket, decision_id } } })),
  choice: (ticket, id) =>
    answerOf(api.POST('/api/instruments/{ticket}/targets/take-back', { params: { path: { ticket } }, body: { id } })),
  mark: (ticket, mark_id) =>
    answerOf(api.POST('/api/instruments/{ticket}/marks/{mark_id}/take-back', { params: { path: { ticket, mark_id } } })),
  seen: (ticket, seen_id) =>
    answerOf(api.POST('/api/instruments/{ticket}/seen/{seen_id}/take-back', { params: { path: { ticket, seen_id } } })),
}

export function takeBack(ticket: string, newest: Undoable): Promise<SheetAnswer> {
  return OF_KIND[newest.kind](ticket, newest.id)
}
