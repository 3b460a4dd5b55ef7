import { part } from './part'
import messages from './en/audit.json'

export const t = part('audit', messages)
