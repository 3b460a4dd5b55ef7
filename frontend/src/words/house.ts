import { part } from './part'
import messages from './en/house'

export const t = part('house', messages)
