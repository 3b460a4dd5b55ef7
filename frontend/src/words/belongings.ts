import { part } from './part'
import messages from './en/belongings'

export const t = part('belongings', messages)
