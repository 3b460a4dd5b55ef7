import { part } from './part'
import messages from './en/look'

export const t = part('look', messages)
