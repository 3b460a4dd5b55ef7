import { part } from './part'
import messages from './en/papers.json'

export const t = part('papers', messages)
