/** What is entered at an instrument beside readings and works, as it goes into the outbox. */
import type { FollowBody, StringsBody, Undoable } from '@/api'
import { post, put, type Act } from '@/outbox'
import { t } from '@/words/bench'

const at = (ticket: string) => ({ path: { ticket } })

export const confirm = (ticket: string, reading_id: string, name: string): Act =>
  post('/api/instruments/{ticket}/readings/{reading_id}/confirm', { params: { path: { ticket, reading_id } }, words: t('confirmed', { name }) })

export const takeBackWork = (ticket: string, work_id: string, words: string): Act =>
  post('/api/instruments/{ticket}/works/{work_id}/take-back', { params: { path: { ticket, work_id } }, words: t('undo', { words }) })

export const takeBackHandOver = (ticket: string): Act =>
  post('/api/instruments/{ticket}/hand-over/take-back', { params: at(ticket), words: t('undo_handed_over') })

export const chooseTargets = (ticket: string, body: FollowBody & { reason: string; id: string }): Act =>
  put('/api/instruments/{ticket}/targets', { params: at(ticket), body, words: t('recipe_and_schools') })

export const nameStrings = (ticket: string, body: StringsBody): Act =>
  post('/api/instruments/{ticket}/strings', { params: at(ticket), body, words: t('strings'), work: body.id })

/** Taking back the newest entry, whatever it is. */
export function takeBack(ticket: string, { kind, id, words }: Undoable): Act {
  const said = { words: t('undo', { words }) }
  switch (kind) {
    case 'reading':
      return post('/api/instruments/{ticket}/readings/{reading_id}/take-back', { params: { path: { ticket, reading_id: id } }, ...said })
    case 'work':
      return takeBackWork(ticket, id, words)
    case 'decision':
      return post('/api/instruments/{ticket}/decisions/{decision_id}/take-back', { params: { path: { ticket, decision_id: id } }, ...said })
    case 'choice':
      return post('/api/instruments/{ticket}/targets/{choice_id}/take-back', { params: { path: { ticket, choice_id: id } }, ...said })
    case 'mark':
      return post('/api/instruments/{ticket}/marks/{mark_id}/take-back', { params: { path: { ticket, mark_id: id } }, ...said })
    case 'seen':
      return post('/api/instruments/{ticket}/seen/{seen_id}/take-back', { params: { path: { ticket, seen_id: id } }, ...said })
  }
}

/** What was taken back here, and can stand again. */
export interface Undone {
  ticket: string
  kind: Exclude<Undoable['kind'], 'choice'>
  id: string
  words: string
}

export const redo = (ticket: string, { kind, id, words }: Undone): Act =>
  post('/api/instruments/{ticket}/redo', { params: at(ticket), body: { kind, of: id }, words: t('redo', { words }) })
