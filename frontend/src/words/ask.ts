import { part } from './part'
import messages from './en/ask'

export const t = part('ask', messages)
