/** What lies in the drawers, found while typing. */
import { refDebounced } from '@vueuse/core'
import { ref, watch, type Ref } from 'vue'
import { answerOf, api, Refused, type StockItem, type StockKind } from '@/api'

export interface UseStockReturn {
  words: Ref<string>
  kind: Ref<string>
  items: Ref<StockItem[]>
  kinds: Ref<StockKind[]>
  isLoaded: Ref<boolean>
  failure: Ref<string>
  load: () => Promise<void>
}

const PAUSE_MS = 120

export function useStock(first: string): UseStockReturn {
  const words = ref('')
  const kind = ref(first)
  const items = ref<StockItem[]>([])
  const kinds = ref<StockKind[]>([])
  const isLoaded = ref(false)
  const failure = ref('')
  const wanted = refDebounced(words, PAUSE_MS)
  let asked = 0

  async function load(): Promise<void> {
    const mine = ++asked
    try {
      const [found, known] = await Promise.all([
        answerOf(api.GET('/api/stock', { params: { query: { words: wanted.value, kind: kind.value } } })),
        kinds.value.length ? kinds.value : answerOf(api.GET('/api/stock-kinds')),
      ])
      if (mine !== asked) return
      items.value = found
      kinds.value = known
      isLoaded.value = true
      failure.value = ''
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      failure.value = error.message
    }
  }
  watch([wanted, kind], () => void load(), { immediate: true })
  return { words, kind, items, kinds, isLoaded, failure, load }
}
