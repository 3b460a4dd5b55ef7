/** What the bench asks of the server about one instrument, beside readings and works. */
import { answerOf, api, type FollowBody, type SheetAnswer, type StringsBody } from '@/api'

export function confirm(ticket: string, reading_id: string): Promise<SheetAnswer> {
  return answerOf(api.POST('/api/instruments/{ticket}/readings/{reading_id}/confirm', { params: { path: { ticket, reading_id } } }))
}

export function takeBackWork(ticket: string, work_id: string): Promise<SheetAnswer> {
  return answerOf(api.POST('/api/instruments/{ticket}/works/{work_id}/take-back', { params: { path: { ticket, work_id } } }))
}

export async function handOver(ticket: string): Promise<void> {
  await answerOf(api.POST('/api/instruments/{ticket}/hand-over', { params: { path: { ticket } } }))
}

export async function takeBackHandOver(ticket: string): Promise<void> {
  await answerOf(api.POST('/api/instruments/{ticket}/hand-over/take-back', { params: { path: { ticket } } }))
}

export function chooseTargets(ticket: string, body: FollowBody & { reason: string; id: string }): Promise<SheetAnswer> {
  return answerOf(api.PUT('/api/instruments/{ticket}/targets', { params: { path: { ticket } }, body }))
}

export function nameStrings(ticket: string, body: StringsBody): Promise<SheetAnswer> {
  return answerOf(api.POST('/api/instruments/{ticket}/strings', { params: { path: { ticket } }, body }))
}
