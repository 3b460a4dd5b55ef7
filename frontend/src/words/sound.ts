import { part } from './part'
import messages from './en/sound.json'

export const t = part('sound', messages)
