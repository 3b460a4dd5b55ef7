import { part } from './part'
import messages from './en/sheet'

export const t = part('sheet', messages)
