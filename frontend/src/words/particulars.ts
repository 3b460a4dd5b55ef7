import { part } from './part'
import messages from './en/particulars.json'

export const t = part('particulars', messages)
