import { part } from './part'
import messages from './en/app.json'

export const t = part('app', messages)
