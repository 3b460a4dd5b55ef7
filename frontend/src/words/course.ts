import { part } from './part'
import messages from './en/course.json'

export const t = part('course', messages)
