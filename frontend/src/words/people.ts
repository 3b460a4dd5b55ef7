import { part } from './part'
import messages from './en/people'

export const t = part('people', messages)
