import { part } from './part'
import messages from './en/word'

export const t = part('word', messages)
