import { part } from './part'
import messages from './en/drawers'

export const t = part('drawers', messages)
