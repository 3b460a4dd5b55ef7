import { part } from './part'
import messages from './en/recipes.json'

export const t = part('recipes', messages)
