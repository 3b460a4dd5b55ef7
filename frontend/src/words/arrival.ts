import { part } from './part'
import messages from './en/arrival'

export const t = part('arrival', messages)
