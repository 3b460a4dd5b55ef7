import { part } from './part'
import messages from './en/log'

export const t = part('log', messages)
