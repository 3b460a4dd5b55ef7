import { part } from './part'
import messages from './en/drawing'

export const t = part('drawing', messages)
