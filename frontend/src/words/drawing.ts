import { part } from './part'
import messages from './en/drawing.json'

export const t = part('drawing', messages)
