/** Archives that are written, looked at or taken in by the server, one at a time, followed until they end. */
import { onScopeDispose, ref, type ComputedRef, type Ref } from 'vue'
import { answerOf, api, Refused, type ArchiveJob } from '@/api'
import { useInTurn } from '@/shared/inTurn'

const ASK_EVERY_MS = 700

export interface UseArchivesReturn {
  job: Ref<ArchiveJob | null>
  failure: Ref<string>
  isSending: ComputedRef<boolean>
  exportHouse: () => Promise<void>
  bring: (file: File) => Promise<void>
  takeIn: (choices: Record<string, 'same' | 'other' | 'skip'>) => Promise<void>
  stop: () => Promise<void>
  forget: () => Promise<void>
}

export function useArchives(): UseArchivesReturn {
  const job = ref<ArchiveJob | null>(null)
  const failure = ref('')
  const { inTurn, isSending } = useInTurn()
  let timer: ReturnType<typeof setTimeout> | undefined

  function follow(now: ArchiveJob | null): void {
    job.value = now
    clearTimeout(timer)
    if (now?.state === 'running') timer = setTimeout(() => void look(now.id), ASK_EVERY_MS)
  }
  async function look(job_id: string): Promise<void> {
    try {
      follow(await answerOf(api.GET('/api/archives/{job_id}', { params: { path: { job_id } } })))
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      // Away for now: what goes on there goes on.
      if (error.status === 404) follow(null)
      else timer = setTimeout(() => void look(job_id), ASK_EVERY_MS)
    }
  }
  let acted = 0
  /** what : the same pressed twice is one. */
  function act(what: string, run: () => Promise<ArchiveJob | null>): Promise<void> {
    acted += 1
    failure.value = ''
    return inTurn(what, async () => {
      try {
        follow(await run())
      } catch (error) {
        if (!(error instanceof Refused)) throw error
        failure.value = error.message
      }
    })
  }
  /** What goes on already, as this page comes; whoever has begun something meanwhile is not held up by the answer. */
  async function join(): Promise<void> {
    const before = acted
    try {
      const now = await answerOf(api.GET('/api/archives'))
      if (acted === before) follow(now)
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      if (acted === before) failure.value = error.message
    }
  }
  void join()
  onScopeDispose(() => clearTimeout(timer))

  const of = () => ({ params: { path: { job_id: job.value?.id ?? '' } } })
  return {
    job,
    failure,
    isSending,
    exportHouse: () => act('export', () => answerOf(api.POST('/api/archives/export'))),
    bring: (file) =>
      act(`bring ${file.name} ${file.size}`, () =>
        answerOf(
          api.POST('/api/archives/upload', { body: file as never, bodySerializer: (body: unknown) => body as Blob, headers: { 'content-type': 'application/zip' } }),
        ),
      ),
    takeIn: (choices) => act('take in', () => answerOf(api.POST('/api/archives/{job_id}/import', { ...of(), body: { choices } }))),
    stop: () => act('stop', () => answerOf(api.POST('/api/archives/{job_id}/stop', of()))),
    forget: () =>
      act('forget', async () => {
        await answerOf(api.DELETE('/api/archives/{job_id}', of()))
        return null
      }),
  }
}
