import { part } from './part'
import messages from './en/course'

export const t = part('course', messages)
