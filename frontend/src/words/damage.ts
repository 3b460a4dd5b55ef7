import { part } from './part'
import messages from './en/damage'

export const t = part('damage', messages)
