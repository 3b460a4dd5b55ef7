import { part } from './part'
import messages from './en/look.json'

export const t = part('look', messages)
