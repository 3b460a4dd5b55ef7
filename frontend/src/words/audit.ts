import { part } from './part'
import messages from './en/audit'

export const t = part('audit', messages)
