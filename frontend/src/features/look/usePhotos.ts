/** Photographs of one visit: what is there, and files on their way, one after the other. */
import { computed, onScopeDispose, ref, type ComputedRef, type Ref } from 'vue'
import { answerOf, api, Refused, type PhotoSheet } from '@/api'
import { freshId } from '@/shared/id'

const RETRY_AFTER_MS = 2500

interface Waiting {
  id: string
  item: string
  file: File
}

export interface UsePhotosReturn {
  sheet: Ref<PhotoSheet | null>
  /** Of the files given since the last was through: how many are, of how many. */
  progress: ComputedRef<{ through: number; of: number } | null>
  /** Why a file was not kept, each with its name. */
  failures: Ref<string[]>
  isAway: Ref<boolean>
  load: () => Promise<void>
  add: (files: Iterable<File>, item: string) => void
  inspect: (shot: string) => Promise<void>
  takeBack: (id: string) => Promise<void>
}

export function usePhotos(ticket: () => string): UsePhotosReturn {
  const sheet = ref<PhotoSheet | null>(null)
  const waiting = ref<Waiting[]>([])
  const given = ref(0)
  const failures = ref<string[]>([])
  const isAway = ref(false)
  let isSending = false
  let isGone = false
  onScopeDispose(() => (isGone = true))

  const progress = computed(() => (waiting.value.length ? { through: given.value - waiting.value.length, of: given.value } : null))
  const path = () => ({ ticket: ticket() })

  async function ask(request: () => Promise<PhotoSheet>, name = ''): Promise<boolean> {
    try {
      sheet.value = await request()
      isAway.value = false
      return true
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      isAway.value = error.away
      if (!error.away) failures.value.push(name ? `${name}: ${error.message}` : error.message)
      return !error.away
    }
  }

  async function load(): Promise<void> {
    const settled = await ask(() => answerOf(api.GET('/api/instruments/{ticket}/photos', { params: { path: path() } })))
    if (!settled && !isGone) setTimeout(() => void load(), RETRY_AFTER_MS)
  }

  function add(files: Iterable<File>, item: string): void {
    if (!waiting.value.length) {
      given.value = 0
      failures.value = []
    }
    for (const file of files) {
      waiting.value.push({ id: freshId(), item, file })
      given.value += 1
    }
    void send()
  }

  /** A file that is refused is named and let go; without a server, all of them wait here. */
  async function send(): Promise<void> {
    if (isSending) return
    isSending = true
    for (let next = waiting.value[0]; next !== undefined && !isGone; next = waiting.value[0]) {
      const { id, item, file } = next
      const settled = await ask(
        () =>
          answerOf(
            api.POST('/api/instruments/{ticket}/photos', {
              params: { path: path(), query: { id, item } },
              headers: { 'Content-Type': file.type || 'application/octet-stream' },
              body: file as unknown as string,
              bodySerializer: (body) => body as unknown as BodyInit,
            }),
          ),
        file.name,
      )
      if (!settled) {
        setTimeout(() => void send(), RETRY_AFTER_MS)
        break
      }
      waiting.value.shift()
    }
    isSending = false
  }

  async function inspect(shot: string): Promise<void> {
    failures.value = []
    const body = { id: freshId(), shot }
    await ask(() => answerOf(api.POST('/api/instruments/{ticket}/photos/inspect', { params: { path: path() }, body })))
  }

  async function takeBack(id: string): Promise<void> {
    await ask(() =>
      answerOf(
        api.POST('/api/instruments/{ticket}/photos/{photo_id}/take-back', { params: { path: { ...path(), photo_id: id } } }),
      ),
    )
  }

  return { sheet, progress, failures, isAway, load, add, inspect, takeBack }
}
