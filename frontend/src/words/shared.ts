import { part } from './part'
import messages from './en/shared'

export const t = part('shared', messages)
