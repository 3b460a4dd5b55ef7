import { part } from './part'
import messages from './en/pages'

export const t = part('pages', messages)
