import { part } from './part'
import messages from './en/frame.json'

export const t = part('frame', messages)
