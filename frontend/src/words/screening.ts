import { part } from './part'
import messages from './en/screening.json'

export const t = part('screening', messages)
