import { part } from './part'
import messages from './en/rail.json'

export const t = part('rail', messages)
