import { part } from './part'
import messages from './en/people.json'

export const t = part('people', messages)
