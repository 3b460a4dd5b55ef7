import { part } from './part'
import messages from './en/measuring.json'

export const t = part('measuring', messages)
