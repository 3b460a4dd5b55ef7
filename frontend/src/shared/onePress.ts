/** The same act pressed twice is one act: by a double click, Enter held down, or a second press while it is on its way. */

/** A second press of the same act within this time of the first is no second wish. */
const AGAIN_MS = 500

interface Press {
  what: string
  at: number
  done: Promise<unknown>
  isUnderway: boolean
}
export type OnePress = <Outcome>(what: string, act: () => Promise<Outcome>, wasRefused?: (outcome: Outcome) => boolean) => Promise<Outcome>

/**
 * A guard for acts of one kind. What came of an act that was pressed just now is what comes of its second press.
 * wasRefused : such an outcome may be tried again at once, as may an act that threw.
 */
export function makeOnePress(): OnePress {
  /* There and back again are two wishes, however fast: only the act pressed last can be pressed twice. */
  let last: Press | null = null
  return function onePress<Outcome>(what: string, act: () => Promise<Outcome>, wasRefused: (outcome: Outcome) => boolean = () => false) {
    if (last?.what === what && (last.isUnderway || Date.now() - last.at < AGAIN_MS)) return last.done as Promise<Outcome>
    const press: Press = { what, at: Date.now(), isUnderway: true, done: Promise.resolve() }
    last = press
    const done = act().then(
      (outcome) => {
        press.isUnderway = false
        if (wasRefused(outcome) && last === press) last = null
        return outcome
      },
      (error: unknown) => {
        if (last === press) last = null
        throw error
      },
    )
    press.done = done
    return done
  }
}

const KNOWN_THEN = new Set(['id', 'now', 'after_work'])
/** What an act says, whatever was known as it was pressed. */
export function saidBy(body: unknown): Record<string, unknown> {
  return Object.fromEntries(Object.entries(body ?? {}).filter(([name]) => !KNOWN_THEN.has(name)))
}
