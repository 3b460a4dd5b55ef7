import { part } from './part'
import messages from './en/tools'

export const t = part('tools', messages)
