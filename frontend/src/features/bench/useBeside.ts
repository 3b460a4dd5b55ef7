/** What stands beside the readings of now: how it came, an earlier visit, or what is wanted. */
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'
import { answerOf, api, Refused, type Beside, type Cell } from '@/api'
import { day, mm, plain } from '@/shared/format'
import { useStored } from '@/shared/stored'
import { decimalsOf, keyOf } from './places'
import { useBench } from './store'
import { t } from '@/words/bench'

export const LAST_TIME = ''
const WANTED = 'wanted'

export interface UseBesideReturn {
  chosen: Ref<string>
  choices: ComputedRef<{ key: string; words: string }[]>
  /** What stands beside a cell, in words; empty where nothing does. */
  besideOf: (cell: Cell) => string
  next: () => void
}

export function useBeside(): UseBesideReturn {
  const bench = useBench()
  const kept = useStored('beside', LAST_TIME)
  const found = ref<Beside[]>([])

  watch(
    [() => bench.ticket, () => bench.sheet?.last_work, kept],
    async ([ticket], before) => {
      if (ticket !== before?.[0]) found.value = []
      if (!ticket || kept.value === LAST_TIME || kept.value === WANTED) return
      await load(ticket)
    },
    { immediate: true },
  )
  async function load(ticket: string): Promise<void> {
    try {
      const answer = await answerOf(api.GET('/api/instruments/{ticket}/beside', { params: { path: { ticket } } }))
      if (ticket === bench.ticket) found.value = answer
    } catch (error) {
      // What stood beside them stays; it is asked for again with the next work.
      if (!(error instanceof Refused)) throw error
    }
  }

  const choices = computed(() => [
    { key: LAST_TIME, words: t('last_time_where_it_is') },
    { key: WANTED, words: t('what_is_wanted') },
    ...(found.value.length ? found.value : [{ key: 'came', label: t('as_it_came'), at: '' }]).map((one) => ({
      key: one.key,
      words: one.key === 'came' ? one.label : `${one.label}, ${day(one.at)}`,
    })),
  ])
  /** An instrument without the visit that was chosen elsewhere shows last time's. */
  const chosen = computed({
    get: () => (choices.value.some(({ key }) => key === kept.value) ? kept.value : LAST_TIME),
    set: (key) => {
      kept.value = key
      if (!found.value.length && bench.ticket) void load(bench.ticket)
    },
  })
  const values = computed(() => new Map(found.value.find(({ key }) => key === chosen.value)?.values.map((one) => [keyOf(one), one.value]) ?? []))

  function besideOf(cell: Cell): string {
    const places = decimalsOf(cell) === 2 ? mm : plain
    if (chosen.value === WANTED) return cell.band ? t('want', { places: places(cell.band.aim) }) : ''
    if (chosen.value === LAST_TIME) {
      const isOpen = cell.state === 'missing' && cell.told === null
      return isOpen && cell.last_time !== null ? t('was', { places: places(cell.last_time) }) : ''
    }
    const value = values.value.get(keyOf(cell))
    return value === undefined ? '' : t('was', { places: places(value) })
  }
  function next(): void {
    const at = choices.value.findIndex(({ key }) => key === chosen.value)
    chosen.value = choices.value[(at + 1) % choices.value.length]?.key ?? LAST_TIME
  }

  return { chosen, choices, besideOf, next }
}
