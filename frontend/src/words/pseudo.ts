import type { Messages } from '@lingui/core'

type Message = Messages[string]

/** A message in brackets, so that a word that does not come from the catalogue is seen at once. */
export function pseudo(message: Message): Message {
  return ['⟦', ...(Array.isArray(message) ? message : [message]), '⟧']
}
