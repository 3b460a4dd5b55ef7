export { patch, post, put } from './act'
export type { Act, Row } from './rows'
export { useOutbox } from './store'
