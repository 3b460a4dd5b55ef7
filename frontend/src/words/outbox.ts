import { part } from './part'
import messages from './en/outbox.json'

export const t = part('outbox', messages)
