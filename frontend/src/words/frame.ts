import { part } from './part'
import messages from './en/frame'

export const t = part('frame', messages)
