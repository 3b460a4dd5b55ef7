/** Acts of a page, one after the other: what is begun while another is on its way waits its turn, and is not lost. */
import { computed, ref, type ComputedRef } from 'vue'
import { makeOnePress } from './onePress'

export interface UseInTurnReturn {
  isSending: ComputedRef<boolean>
  /** what : the same act pressed twice is one. */
  inTurn: <Outcome>(what: string, act: () => Promise<Outcome>) => Promise<Outcome>
}

export function useInTurn(): UseInTurnReturn {
  const onePress = makeOnePress()
  const count = ref(0)
  let last: Promise<unknown> = Promise.resolve()

  function inTurn<Outcome>(what: string, act: () => Promise<Outcome>): Promise<Outcome> {
    return onePress(what, () => {
      count.value += 1
      const mine = last.then(act).finally(() => (count.value -= 1))
      last = mine.catch(() => undefined)
      return mine
    })
  }
  return { inTurn, isSending: computed(() => count.value > 0) }
}
