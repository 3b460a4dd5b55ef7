import { part } from './part'
import messages from './en/house.json'

export const t = part('house', messages)
