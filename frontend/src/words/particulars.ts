import { part } from './part'
import messages from './en/particulars'

export const t = part('particulars', messages)
