import { part } from './part'
import messages from './en/pages.json'

export const t = part('pages', messages)
