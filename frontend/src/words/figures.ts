import { part } from './part'
import messages from './en/figures'

export const t = part('figures', messages)
