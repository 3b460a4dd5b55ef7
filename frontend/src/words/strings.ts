import { part } from './part'
import messages from './en/strings'

export const t = part('strings', messages)
