import { part } from './part'
import messages from './en/measuring'

export const t = part('measuring', messages)
