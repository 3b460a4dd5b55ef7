/** What changes people, figures or devices asks for the password again: one question, whoever waits for its answer. */
import { ref, type Ref } from 'vue'

type Answer = (isGiven: boolean) => void

const waiting = ref<Answer[]>([])
/** Why it is asked; empty while it is not. */
const why: Ref<string> = ref('')

/** Whether the password was given; false where the question was cancelled. */
export function askPasswordAgain(reason: string): Promise<boolean> {
  why.value = reason
  return new Promise((resolve) => waiting.value.push(resolve))
}

export interface UsePasswordAgainReturn {
  why: Ref<string>
  answer: Answer
}

/** For the one dialog that asks it. */
export function usePasswordAgain(): UsePasswordAgainReturn {
  function answer(isGiven: boolean): void {
    const all = waiting.value
    waiting.value = []
    why.value = ''
    for (const one of all) one(isGiven)
  }
  return { why, answer }
}
