import { part } from './part'
import messages from './en/leaving'

export const t = part('leaving', messages)
