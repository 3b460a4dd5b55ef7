import { part } from './part'
import messages from './en/recipes'

export const t = part('recipes', messages)
