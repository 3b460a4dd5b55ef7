import { part } from './part'
import messages from './en/sound'

export const t = part('sound', messages)
