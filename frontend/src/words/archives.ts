import { part } from './part'
import messages from './en/archives'

export const t = part('archives', messages)
