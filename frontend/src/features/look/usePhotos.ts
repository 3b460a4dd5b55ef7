/** Photographs of one visit: what is there, and files on their way, one after the other. */
import { computed, onScopeDispose, ref, type ComputedRef, type Ref } from 'vue'
import { answerOf, api, onBack, Refused, type PhotoSheet } from '@/api'
import { useBench } from '@/features/bench'
import { post, useOutbox, type Act, type Row } from '@/outbox'
import { freshId } from '@/shared/id'
import { t } from '@/words/look'

const PHOTOS = '/api/instruments/{ticket}/photos'

export interface UsePhotosReturn {
  sheet: Ref<PhotoSheet | null>
  /** Of the files given since the last was through: how many are, of how many. */
  progress: ComputedRef<{ through: number; of: number } | null>
  /** Why a file was not kept, each with its name. */
  failures: Ref<string[]>
  load: () => Promise<void>
  add: (files: Iterable<File>, item: string) => void
  inspect: (shot: string) => Promise<void>
  takeBack: (id: string) => Promise<void>
}

export function usePhotos(ticket: () => string): UsePhotosReturn {
  const bench = useBench()
  const outbox = useOutbox()
  const sheet = ref<PhotoSheet | null>(null)
  const given = ref(0)
  const failures = ref<string[]>([])

  const waiting = computed(() => outbox.rows.filter((row) => row.path === PHOTOS && row.ticket === ticket() && row.state !== 'refused'))
  const progress = computed(() => (waiting.value.length ? { through: Math.max(0, given.value - waiting.value.length), of: Math.max(given.value, waiting.value.length) } : null))
  const path = () => ({ ticket: ticket() })

  /** A file that is refused is named and let go. */
  function name(row: Row): boolean {
    if (row.path !== PHOTOS || row.ticket !== ticket()) return false
    failures.value.push(`${row.words}: ${row.says}`)
    return true
  }
  const show = (row: Row, answer: unknown) => {
    if (row.path === PHOTOS && row.ticket === ticket()) sheet.value = answer as PhotoSheet
  }
  outbox.onRefused.add(name)
  outbox.onSent.add(show)
  onScopeDispose(() => {
    outbox.onRefused.delete(name)
    outbox.onSent.delete(show)
  })
  onScopeDispose(onBack(() => void load()))

  async function load(): Promise<void> {
    try {
      sheet.value = await answerOf(api.GET(PHOTOS, { params: { path: path() } }))
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      if (!error.away) failures.value.push(error.message)
    }
  }

  const visit = () => ({ visit: bench.ticket === ticket() ? (bench.sheet?.instrument.visit_id ?? '') : '' })
  /** Of each file a copy is kept here until the server has it. */
  function add(files: Iterable<File>, item: string): void {
    if (!waiting.value.length) {
      given.value = 0
      failures.value = []
    }
    for (const file of files) {
      outbox.enter(post(PHOTOS, { params: { path: path(), query: { id: freshId(), item } }, blob: file, words: file.name }), visit())
      given.value += 1
    }
  }

  async function change(act: Act): Promise<void> {
    try {
      const done = await outbox.submit(act, visit())
      if (done.sent) sheet.value = done.answer as PhotoSheet
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      failures.value.push(error.message)
    }
  }

  async function inspect(shot: string): Promise<void> {
    failures.value = []
    await change(post('/api/instruments/{ticket}/photos/inspect', { params: { path: path() }, body: { id: freshId(), shot }, words: t('photographs_looked_at') }))
  }

  async function takeBack(id: string): Promise<void> {
    await change(post('/api/instruments/{ticket}/photos/{photo_id}/take-back', { params: { path: { ...path(), photo_id: id } }, words: t('undo_a_photograph') }))
  }

  return { sheet, progress, failures, load, add, inspect, takeBack }
}
