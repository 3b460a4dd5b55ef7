import { part } from './part'
import messages from './en/history'

export const t = part('history', messages)
