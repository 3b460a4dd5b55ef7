import { part } from './part'
import messages from './en/plan'

export const t = part('plan', messages)
