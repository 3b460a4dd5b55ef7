import { part } from './part'
import messages from './en/bench'

export const t = part('bench', messages)
