import { part } from './part'
import messages from './en/figures.json'

export const t = part('figures', messages)
