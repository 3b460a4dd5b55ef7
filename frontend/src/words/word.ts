import { part } from './part'
import messages from './en/word.json'

export const t = part('word', messages)
