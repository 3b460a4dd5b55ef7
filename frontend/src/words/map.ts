import { part } from './part'
import messages from './en/map.json'

export const t = part('map', messages)
