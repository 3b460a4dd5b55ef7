import { part } from './part'
import messages from './en/shared.json'

export const t = part('shared', messages)
