import { part } from './part'
import messages from './en/works.json'

export const t = part('works', messages)
