/** What was said of items while screening: it waits in the outbox until the server has it. */
import { computed, onScopeDispose, ref, type ComputedRef, type Ref } from 'vue'
import type { SeenBody } from '@/api'
import { post, useOutbox, type Row } from '@/outbox'
import { freshId } from '@/shared/id'

const SEEN = '/api/instruments/{ticket}/items/{item}/seen'

export interface Said {
  ticket: string
  item: string
  body: SeenBody
}

export interface UseSaidReturn {
  waiting: ComputedRef<Said[]>
  /** Why the server would not have it, by ticket and item. */
  refused: Ref<Record<string, string>>
  say: (ticket: string, item: string, said: Omit<SeenBody, 'id'>, words: string) => string
}

export function useSaid(): UseSaidReturn {
  const outbox = useOutbox()
  const refused = ref<Record<string, string>>({})
  const itemOf = (row: Row) => String(row.params.path?.item ?? '')
  const waiting = computed(() =>
    outbox.rows.filter((row) => row.path === SEEN && row.state !== 'refused').map((row) => ({ ticket: row.ticket, item: itemOf(row), body: row.body as SeenBody })),
  )

  function say(ticket: string, item: string, said: Omit<SeenBody, 'id'>, words: string): string {
    const id = freshId()
    refused.value = Object.fromEntries(Object.entries(refused.value).filter(([at]) => at !== `${ticket}/${item}`))
    outbox.enter(post(SEEN, { params: { path: { ticket, item } }, body: { ...said, id }, words }), { id })
    return id
  }

  function note(row: Row): boolean {
    if (row.path !== SEEN) return false
    refused.value = { ...refused.value, [`${row.ticket}/${itemOf(row)}`]: row.says }
    return true
  }
  outbox.onRefused.add(note)
  onScopeDispose(() => outbox.onRefused.delete(note))

  return { waiting, refused, say }
}
