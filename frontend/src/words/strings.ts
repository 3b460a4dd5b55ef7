import { part } from './part'
import messages from './en/strings.json'

export const t = part('strings', messages)
