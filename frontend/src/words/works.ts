import { part } from './part'
import messages from './en/works'

export const t = part('works', messages)
