import { part } from './part'
import messages from './en/log.json'

export const t = part('log', messages)
