import { part } from './part'
import messages from './en/rail'

export const t = part('rail', messages)
