import { part } from './part'
import messages from './en/billing'

export const t = part('billing', messages)
