/** What was said of items while screening: kept in this browser until the server has it, in the order it was said. */
import { ref, watch, type Ref } from 'vue'
import { answerOf, api, Refused, type SeenBody } from '@/api'
import { freshId } from '@/shared/id'
import { useAtBench } from '@/shared/person'
import { useStored } from '@/shared/stored'

const RETRY_AFTER_MS = 2500

export interface Said {
  ticket: string
  person: string
  item: string
  body: SeenBody & { id: string }
}

export interface UseSaidReturn {
  waiting: Ref<Said[]>
  /** Why the server would not have it, by ticket and item. */
  refused: Ref<Record<string, string>>
  /** Why nothing is sent for now; empty while all goes its way. */
  held: Ref<string>
  say: (ticket: string, item: string, said: Omit<SeenBody, 'id'>) => string
}

export function useSaid(): UseSaidReturn {
  const atBench = useAtBench()
  const waiting = useStored<Said[]>('said', [])
  const refused = ref<Record<string, string>>({})
  const held = ref('')
  let isSending = false

  function say(ticket: string, item: string, said: Omit<SeenBody, 'id'>): string {
    const body = { ...said, id: freshId() }
    refused.value = Object.fromEntries(Object.entries(refused.value).filter(([at]) => at !== `${ticket}/${item}`))
    waiting.value = [...waiting.value, { ticket, person: atBench.personId, item, body }]
    void send()
    return body.id
  }

  async function send(): Promise<void> {
    if (isSending) return
    isSending = true
    try {
      for (let next = waiting.value[0]; next !== undefined; next = waiting.value[0]) {
        const { ticket, item, person, body } = next
        try {
          await answerOf(
            api.POST('/api/instruments/{ticket}/items/{item}/seen', {
              params: { path: { ticket, item } },
              headers: { 'X-Fidicula-Person': person },
              body,
            }),
          )
          held.value = ''
        } catch (error) {
          if (!(error instanceof Refused)) throw error
          if (error.away || error.status === 403) {
            held.value = error.away ? 'The server does not answer: what was said is kept here.' : error.message
            if (error.status !== 401 && error.away) setTimeout(() => void send(), RETRY_AFTER_MS)
            return
          }
          refused.value = { ...refused.value, [`${ticket}/${item}`]: error.message }
        }
        waiting.value = waiting.value.filter((one) => one.body.id !== body.id)
      }
    } finally {
      isSending = false
    }
  }

  watch(
    [() => atBench.signedIn, () => atBench.personId],
    () => void send(),
    { immediate: true },
  )

  return { waiting, refused, held, say }
}
