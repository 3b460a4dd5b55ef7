import { part } from './part'
import messages from './en/app'

export const t = part('app', messages)
