import { part } from './part'
import messages from './en/arrival.json'

export const t = part('arrival', messages)
