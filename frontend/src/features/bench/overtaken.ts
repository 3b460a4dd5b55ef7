/** What somebody else read where one's own reading stood a moment ago: whoever was first is told of it too. */
import type { BenchSheet } from '@/api'
import { ago, plain } from '@/shared/format'
import { keyOf } from './places'
import { t } from '@/words/bench'

const A_MOMENT_MS = 10 * 60_000

/** me : who is at the bench here.  Empty where nothing of theirs was overtaken. */
export function overtaken(before: BenchSheet | null, now: BenchSheet, me: string): string {
  // After a work everything is read again, by anybody.
  if (!before || before.instrument.visit_id !== now.instrument.visit_id || before.last_work !== now.last_work) return ''
  const stood = new Map(before.cells.map((cell) => [keyOf(cell), cell]))
  for (const cell of now.cells) {
    const was = stood.get(keyOf(cell))
    const isMine = was?.state === 'current' && was.taken_by === me && was.taken_at !== null && Date.now() - Date.parse(was.taken_at) < A_MOMENT_MS
    const isTheirs = cell.taken_by !== null && cell.taken_by !== me && cell.taken_at !== null && cell.count < 2
    if (!isMine || !isTheirs || was.reading_id === cell.reading_id) continue
    return t('was_read_by_another_too', {
      person: cell.taken_by ?? '',
      theirs: plain(cell.value ?? 0),
      name: cell.name,
      ago: ago(cell.taken_at ?? ''),
      mine: plain(was.value ?? 0),
    })
  }
  return ''
}
