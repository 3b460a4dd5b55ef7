import { part } from './part'
import messages from './en/map'

export const t = part('map', messages)
