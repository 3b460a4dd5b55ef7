/** What a page asks the server for, whenever what it asks about changes: only the newest answer shows. */
import { ref, shallowRef, watch, type Ref, type ShallowRef } from 'vue'
import { Refused } from '@/api/refused'

export interface UseLoadedReturn<Answer> {
  /** Null until it is here; never that of what was asked about before. */
  found: ShallowRef<Answer | null>
  failure: Ref<string>
  isLoading: Ref<boolean>
  /** Ask again; what stands there stays until the answer is here. */
  load: () => Promise<void>
}

/** about : what is asked about.  shown : what an answer changes besides. */
export function useLoaded<About extends string, Answer>(about: () => About, ask: (about: About) => Promise<Answer>, shown: (answer: Answer) => void = () => {}): UseLoadedReturn<Answer> {
  const found = shallowRef<Answer | null>(null)
  const failure = ref('')
  const isLoading = ref(false)
  const latest = useLatest()

  async function load(): Promise<void> {
    failure.value = ''
    isLoading.value = true
    await latest(
      () => ask(about()),
      (answer) => {
        found.value = answer
        shown(answer)
      },
      (message) => (failure.value = message),
      () => (isLoading.value = false),
    )
  }
  watch(about, () => {
    found.value = null
    void load()
  }, { immediate: true })
  return { found, failure, isLoading, load }
}

/** The latest answer wins: what was asked before something newer is neither shown nor said to have failed. */
export function useLatest(): <Answer>(ask: () => Promise<Answer>, show: (answer: Answer) => void, fail?: (message: string) => void, end?: () => void) => Promise<void> {
  let asked = 0
  return async (ask, show, fail = () => {}, end = () => {}) => {
    const mine = ++asked
    try {
      const answer = await ask()
      if (mine === asked) show(answer)
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      if (mine === asked) fail(error.message)
    } finally {
      if (mine === asked) end()
    }
  }
}
