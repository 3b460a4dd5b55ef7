/** A page for where its handles stand: one question at a time is on its way, and the newest wish goes next. */
import { ref, shallowRef, watch, type Ref } from 'vue'
import { answerOf, api, Refused, type PageView } from '@/api'
import { keep, lastSeen } from '@/shared/kept'

export interface UseTriedOptions {
  ticket: () => string
  page: () => string
  /** Changes with every reading, work and decision: then the page is worked out again. */
  stamp: () => unknown
}

export interface UseTriedReturn {
  view: Ref<PageView | null>
  tried: Ref<Record<string, number | string>>
  /** What was wrong, by handle; under '' what is wrong with the page. */
  faults: Ref<Record<string, string>>
  tryOut: (handle: string, value: number | string) => void
  letRest: () => void
  again: () => void
}

export function useTried(options: UseTriedOptions): UseTriedReturn {
  const view = shallowRef<PageView | null>(null)
  const tried = ref<Record<string, number | string>>({})
  const faults = ref<Record<string, string>>({})
  let isAsking = false
  let isWaiting = false

  async function ask(): Promise<void> {
    if (isAsking) {
      isWaiting = true
      return
    }
    isAsking = true
    try {
      do {
        isWaiting = false
        await once()
      } while (isWaiting)
    } finally {
      isAsking = false
    }
  }

  const addressOf = (ticket: string, page: string) => `/api/instruments/${encodeURIComponent(ticket)}/pages/${page}`

  async function once(): Promise<void> {
    const [ticket, page] = [options.ticket(), options.page()]
    try {
      const answer = await answerOf(
        api.POST('/api/instruments/{ticket}/pages/{page}', { params: { path: { ticket, page } }, body: { handles: tried.value } }),
      )
      if (ticket !== options.ticket() || page !== options.page()) return
      view.value = answer
      faults.value = {}
      if (!Object.keys(tried.value).length) keep(addressOf(ticket, page), answer)
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      const seen = error.away && view.value === null ? await lastSeen<PageView>(addressOf(ticket, page)) : null
      if (seen && ticket === options.ticket() && page === options.page()) view.value = seen
      faults.value = Object.keys(error.fields).length ? error.fields : { '': error.message }
    }
  }

  function tryOut(handle: string, value: number | string): void {
    tried.value = { ...tried.value, [handle]: value }
    void ask()
  }
  function letRest(): void {
    tried.value = {}
    void ask()
  }

  watch(
    [options.ticket, options.page],
    () => {
      view.value = null
      tried.value = {}
      faults.value = {}
      void ask()
    },
    { immediate: true },
  )
  watch(options.stamp, () => void ask())

  return { view, tried, faults, tryOut, letRest, again: () => void ask() }
}
