/** Readings that were typed while another one waits for a word: they are held in their order, and none is dropped. */
import { computed, type ComputedRef } from 'vue'
import { useStoredRecord } from '@/shared/storedRecord'

/** entries : whole ones.  typing : what is being typed behind them. */
export interface Held {
  entries: string[]
  typing: string
}

export interface UseHeldReturn {
  held: ComputedRef<Held>
  /** Whether nothing is held. */
  isNone: ComputedRef<boolean>
  type: (key: string) => void
  /** What is being typed is whole. */
  end: () => void
  /** One character of what is being typed, or all of it, is not meant. */
  erase: (all: boolean) => void
  /** The first of them, which is held no more; undefined for none. */
  shift: () => string | undefined
  discard: () => void
}

const NONE: Held = { entries: [], typing: '' }

/** ticket : of the instrument that they belong to; a reload finds them there again. */
export function useHeld(ticket: () => string): UseHeldReturn {
  const { record, set } = useStoredRecord<Held>('held')
  const held = computed(() => record.value[ticket()] ?? NONE)
  function keep(now: Held): void {
    set(ticket(), now.entries.length || now.typing ? now : undefined)
  }
  return {
    held,
    isNone: computed(() => !held.value.entries.length && !held.value.typing),
    type: (key) => keep({ ...held.value, typing: held.value.typing + key }),
    end: () => {
      const { entries, typing } = held.value
      if (typing.trim()) keep({ entries: [...entries, typing.trim()], typing: '' })
    },
    erase: (all) => keep({ ...held.value, typing: all ? '' : held.value.typing.slice(0, -1) }),
    shift: () => {
      const [first, ...rest] = held.value.entries
      if (first !== undefined) keep({ ...held.value, entries: rest })
      return first
    },
    discard: () => keep(NONE),
  }
}
