import { part } from './part'
import messages from './en/outbox'

export const t = part('outbox', messages)
