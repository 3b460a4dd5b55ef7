/** What every sheet of paper does on the screen: it opens its instrument, prints, and leads back to the measuring. */
import { watch } from 'vue'
import { useRouter } from 'vue-router'
import { useBench } from '@/features/bench'
import { useCommands } from '@/shared/commands'
import { t } from '@/words/papers'

export interface UsePaperReturn {
  bench: ReturnType<typeof useBench>
  print: () => void
  back: () => void
}

export function usePaper(ticket: () => string): UsePaperReturn {
  const bench = useBench()
  const router = useRouter()
  watch(ticket, (now) => void bench.open(now), { immediate: true })

  function print(): void {
    window.print()
  }
  function back(): void {
    void router.push({ name: 'measure', params: { ticket: ticket() } })
  }
  useCommands([
    { letter: 'd', own: true, words: t('print_it'), run: print },
    { letter: 'e', own: true, words: t('back_to_the_measuring'), run: back },
  ])
  return { bench, print, back }
}
