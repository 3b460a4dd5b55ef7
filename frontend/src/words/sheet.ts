import { part } from './part'
import messages from './en/sheet.json'

export const t = part('sheet', messages)
