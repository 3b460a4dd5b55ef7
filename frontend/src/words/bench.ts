import { part } from './part'
import messages from './en/bench.json'

export const t = part('bench', messages)
