import { part } from './part'
import messages from './en/screening'

export const t = part('screening', messages)
