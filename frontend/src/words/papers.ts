import { part } from './part'
import messages from './en/papers'

export const t = part('papers', messages)
