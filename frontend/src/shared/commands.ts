/** Commands: what a page can do, each with its letter, run from the strip that Space opens. */
import { computed, onScopeDispose, shallowReactive, type ComputedRef } from 'vue'

export interface Command {
  letter: string
  words: string
  run: () => void
  /** Of the whole house, not of the page in front: stands last. */
  general?: boolean
  /** An act of this page alone, behind Space twice: a letter of its own there, so that the others mean one thing everywhere. */
  own?: boolean
  /** Left out of the strip while this is false. */
  possible?: () => boolean
}

const registered = shallowReactive(new Set<Command>())

export interface UseCommandsReturn {
  commands: ComputedRef<Command[]>
}

/** Register commands for as long as the component lives. */
export function useCommands(own: Command[] = []): UseCommandsReturn {
  for (const command of own) registered.add(command)
  onScopeDispose(() => {
    for (const command of own) registered.delete(command)
  })
  return { commands: computed(() => {
    const possible = [...registered].filter((command) => command.possible?.() ?? true)
    return [...possible.filter((command) => !command.general), ...possible.filter((command) => command.general)]
  }) }
}
